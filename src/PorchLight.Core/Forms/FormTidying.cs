namespace PorchLight.Core.Forms;

/// <summary>Takes from a form what only stands there because somebody was still writing.</summary>
public static class FormTidying
{
    /// <summary>
    /// The form as it is published: titles, wordings and labels without blanks at their ends, lines of help that say nothing gone, next
    /// steps without empty lines. What a lead or a rule could tell apart stays as it is.
    /// </summary>
    /// <param name="form">The form as it was written.</param>
    public static FormContent Tidy(this FormContent form) =>
        form with
        {
            Title = form.Title.Trim(),
            Intro = form.Intro.Trim(),
            Pages = [.. form.Pages.Select(page => page with { Title = page.Title.Trim(), Items = [.. page.Items.Select(Tidy)] })],
            SendOffs = [.. form.SendOffs.Select(Tidy)],
            DefaultSendOff = Tidy(form.DefaultSendOff),
        };

    private static Item Tidy(Item item) =>
        item switch
        {
            Question question => Tidy(question),
            Heading heading => heading with { Text = heading.Text.Trim() },
            Passage passage => passage with { Text = passage.Text.Trim() },
            _ => item,
        };

    private static Question Tidy(Question question) =>
        question with
        {
            Wording = question.Wording.Trim(),
            Help = Words(question.Help),
            Placeholder = Words(question.Placeholder),
            Kind = question.Kind switch
            {
                ChoiceKind choice => choice with
                {
                    Options =
                    [
                        .. choice.Options.Select(option =>
                            option with
                            {
                                Label = option.Label.Trim(),
                                Explanation = Words(option.Explanation),
                            }
                        ),
                    ],
                },
                AgreementKind agreement => agreement with { Statement = agreement.Statement.Trim() },
                ListKind rows => rows with { Called = rows.Called.Trim(), Asks = [.. rows.Asks.Select(Tidy)] },
                PeopleKind people => people with { Called = people.Called.Trim(), More = [.. people.More.Select(Tidy)] },
                var kind => kind,
            },
        };

    private static SendOff Tidy(SendOff sendOff) =>
        sendOff with
        {
            Title = sendOff.Title.Trim(),
            Text = sendOff.Text.Trim(),
            NextSteps = [.. sendOff.NextSteps.Select(step => step.Trim()).Where(step => step.Length > 0)],
        };

    private static string? Words(string? words) => words?.Trim() is { Length: > 0 } said ? said : null;
}
