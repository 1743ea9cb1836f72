namespace PorchLight.Core.Forms;

/// <summary>A form as somebody of the business fills it in for a lead who phoned or wrote.</summary>
public static class WritingDown
{
    /// <summary>
    /// The form with nothing that must be answered: what was not talked about stays blank. Of
    /// people that are listed, the name is still asked. What an answer may be, where it leads and what
    /// follows from it stays as it is.
    /// </summary>
    /// <param name="form">The form as leads fill it in.</param>
    public static FormContent Relax(FormContent form) =>
        form with
        {
            Pages =
            [
                .. form.Pages.Select(page =>
                    page with
                    {
                        Items = [.. page.Items.Select(item => item is Question one ? Relax(one) : item)],
                    }
                ),
            ],
        };

    private static Question Relax(Question question) =>
        question with
        {
            Required = false,
            RequiredWhen = null,
            Kind = question.Kind switch
            {
                ListKind rows => rows with { Asks = [.. rows.Asks.Select(Relax)], Least = 0 },
                PeopleKind rows => rows with { More = [.. rows.More.Select(Relax)], Least = 0 },
                var kind => kind,
            },
        };
}
