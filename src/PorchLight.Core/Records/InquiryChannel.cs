namespace PorchLight.Core.Records;

/// <summary>How an inquiry reached the business.</summary>
public enum InquiryChannel
{
    /// <summary>They filled in the form themselves.</summary>
    Form,

    /// <summary>They phoned.</summary>
    Phone,

    /// <summary>They wrote a mail or a letter.</summary>
    Mail,

    /// <summary>Somebody of the business met them: at a fair, in the street, in the workshop.</summary>
    InPerson,
}

/// <summary>Says how inquiries came.</summary>
public static class InquiryChannels
{
    /// <summary>How it came, in a sentence: "by phone".</summary>
    /// <param name="channel">How it came.</param>
    public static string Say(this InquiryChannel channel) =>
        channel switch
        {
            InquiryChannel.Phone => "by phone",
            InquiryChannel.Mail => "by mail",
            InquiryChannel.InPerson => "in person",
            _ => "by the form",
        };
}
