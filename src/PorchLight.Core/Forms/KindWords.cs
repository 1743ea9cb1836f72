namespace PorchLight.Core.Forms;

/// <summary>Says in words what a question takes, for the people who build forms.</summary>
public static class KindWords
{
    /// <summary>The kind, with what there is to choose from: "One of: Yes, I decide / Together with others".</summary>
    public static string Say(QuestionKind kind) =>
        kind switch
        {
            ShortTextKind => "One line of text",
            LongTextKind => "Several lines of text",
            EmailKind => "E-mail address",
            PhoneKind => "Phone number",
            WebAddressKind => "Web address",
            NumberKind { Unit: { } unit } => $"Number, in {unit}",
            NumberKind => "Number",
            MoneyKind money => $"Amount in {money.Currency}",
            ScaleKind scale => $"Scale from {scale.Low} to {scale.High}",
            DateKind => "Day",
            DateRangeKind { OrMonth: true } => "From one day to another, or a month",
            DateRangeKind => "From one day to another",
            YesNoKind => "Yes or no",
            ChoiceKind choice =>
                $"{(choice.Several ? "Any of" : "One of")}: {string.Join(" / ", choice.Options.Select(option => option.Label))}",
            LookUpKind => "One line of a list, found by typing",
            PersonNameKind => "A person's name",
            AddressKind => "Address in parts",
            FilesKind { AtMost: 1 } => "A file",
            FilesKind files => $"Up to {files.AtMost} files",
            RowsKind rows =>
                $"A list, for each {rows.OneIsCalled}: {string.Join(" / ", rows.Questions.Select(question => question.Wording))}",
            ConsentKind => "Agreement",
            AdvertisingKind => "Permission to advertise",
            SignatureKind => "Signature",
            WorkedOutKind { Shown: true } => "Worked out from the answers",
            WorkedOutKind => "Worked out from the answers, unseen",
            HiddenKind hidden => hidden.Parameter is { } name ? $"Unseen, from “{name}” in the link" : "Unseen, the page they came from",
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "A kind of question that has no words."),
        };
}
