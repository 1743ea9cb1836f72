namespace PorchLight.Core.Inquiries;

/// <summary>What a business that has just begun sets up, in the order of the work.</summary>
public enum FirstStep
{
    /// <summary>What it sells, and where that starts in price.</summary>
    Services,

    /// <summary>The mail server by which its mail goes out.</summary>
    Mail,

    /// <summary>The address at which others reach it.</summary>
    Address,

    /// <summary>A form whose light is on.</summary>
    Form,

    /// <summary>An answer of one's own to it, to see what a lead sees and what arrives.</summary>
    FirstAnswer,
}

/// <summary>How far a business has come with its first steps.</summary>
/// <param name="HasServices">Whether its list of services names any.</param>
/// <param name="SendsMail">Whether its mail goes out.</param>
/// <param name="HasAddress">Whether it is reached at an address of its own, and not only on this machine.</param>
/// <param name="HasForm">Whether a form takes answers.</param>
/// <param name="HasAnswer">Whether anybody has sent one.</param>
public sealed record FirstSteps(bool HasServices, bool SendsMail, bool HasAddress, bool HasForm, bool HasAnswer)
{
    /// <summary>Whether all of it is done: then nobody is reminded any more.</summary>
    public bool AreDone => HasServices && SendsMail && HasAddress && HasForm && HasAnswer;

    /// <summary>Each step with whether it is done, in order.</summary>
    public IReadOnlyList<(FirstStep Step, bool IsDone)> All =>
        [
            (FirstStep.Services, HasServices),
            (FirstStep.Mail, SendsMail),
            (FirstStep.Address, HasAddress),
            (FirstStep.Form, HasForm),
            (FirstStep.FirstAnswer, HasAnswer),
        ];
}
