using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>How to reach the person who answered, as far as they said.</summary>
/// <param name="Name">Their name, or null.</param>
/// <param name="Email">Their e-mail address, or null.</param>
/// <param name="Phone">Their phone number, or null.</param>
public sealed record Contact(PersonNameAnswer? Name, string? Email, PhoneAnswer? Phone)
{
    /// <summary>What a client is called in lists until somebody names them.</summary>
    public const string NoName = "No name given";

    private static readonly (Field Field, Func<QuestionKind, bool> Asks)[] Details =
    [
        (BuiltInFields.Name, kind => kind is PersonNameKind),
        (BuiltInFields.Email, kind => kind is EmailKind),
        (BuiltInFields.Phone, kind => kind is PhoneKind),
    ];

    /// <summary>Whether there is any way to reach them; without one no reply is promised.</summary>
    public bool IsReachable => Email is not null || Phone is not null;

    /// <summary>Whether they said nothing of who they are.</summary>
    public bool IsNobody => Name is null && !IsReachable;

    /// <summary>What to call them in a list: the name, else whatever there is.</summary>
    public string ListName => Name?.Full ?? Email ?? Phone?.Typed ?? NoName;

    /// <summary>
    /// The contact details among the answers: those that land in the built-in fields, or would by
    /// <see cref="WithContactLanding(FormContent)"/>.
    /// </summary>
    /// <param name="form">The version that was answered.</param>
    /// <param name="answers">The states by question key; what is blank or not asked is null in the contact.</param>
    public static Contact Of(FormContent form, IReadOnlyDictionary<string, AnswerState> answers)
    {
        var landed = WithContactLanding(form);
        return new Contact(
            For(BuiltInFields.Name) as PersonNameAnswer,
            (For(BuiltInFields.Email) as TextAnswer)?.Text,
            For(BuiltInFields.Phone) as PhoneAnswer
        );

        Answer? For(Field field) =>
            landed
                .Questions.Where(question => LandsIn(question, field))
                .Select(question => answers.GetValueOrDefault(question.Key).Answer)
                .FirstOrDefault(answer => answer is not null);
    }

    /// <summary>
    /// The form as it is landed: where no question lands in the main contact's name, e-mail address or phone number, the first that asks
    /// for one and lands nowhere does, so that nobody who said who they are is lost.
    /// </summary>
    /// <param name="form">A version; the same comes back where nothing is missing.</param>
    public static FormContent WithContactLanding(FormContent form)
    {
        var adopted = new Dictionary<string, Field>();
        foreach (var (field, asks) in Details)
        {
            if (form.Questions.Any(question => LandsIn(question, field)))
                continue;
            if (form.Questions.FirstOrDefault(question => question.LandsIn is null && asks(question.Kind)) is { } first)
                adopted[first.Key] = field;
        }

        return adopted.Count == 0
            ? form
            : form with
            {
                Pages =
                [
                    .. form.Pages.Select(page =>
                        page with
                        {
                            Items =
                            [
                                .. page.Items.Select(item =>
                                    item is Question question && adopted.TryGetValue(question.Key, out var field)
                                        ? question with
                                        {
                                            LandsIn = new SetField(field.Key),
                                        }
                                        : item
                                ),
                            ],
                        }
                    ),
                ],
            };
    }

    /// <summary>
    /// Whether somebody who took this way out of a form is an inquiry: whoever goes to the end is, and who leaves by an early way out once
    /// they said anything of who they are.
    /// </summary>
    /// <param name="form">The version that was answered.</param>
    /// <param name="route">The way they took; it has ended.</param>
    public bool MakesInquiry(FormContent form, Route route) => !IsNobody || !route.IsEarlyExit(form);

    private static bool LandsIn(Question question, Field field) => question.LandsIn is SetField set && set.Field == field.Key;
}
