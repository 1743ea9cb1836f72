using System.Text;
using System.Text.Encodings.Web;
using PorchLight.Core.Forms;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Forms;

/// <summary>Writes a form as plain HTML, for a developer to put into their own markup.</summary>
internal static class PlainMarkup
{
    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    /// <summary>The markup; what plain markup cannot ask stands there as a comment.</summary>
    /// <param name="content">The published version.</param>
    /// <param name="action">Where it posts to.</param>
    public static string Write(FormContent content, string action)
    {
        var html = new StringBuilder();
        html.Append("<form method=\"post\" action=\"").Append(Html.Encode(action)).AppendLine("\">");
        foreach (var page in content.Pages)
        {
            html.Append("  <fieldset>\n    <legend>").Append(Html.Encode(page.Title)).AppendLine("</legend>");
            foreach (var question in page.Questions)
                Ask(html, question, question.Key, "    ");
            html.AppendLine("  </fieldset>");
        }

        html.AppendLine("  <!-- People must not see this field; whoever fills it in is a program. -->");
        html.Append("  <p hidden><label>Leave this empty <input name=\"")
            .Append(PlainPostEndpoints.Trap)
            .AppendLine("\" tabindex=\"-1\" autocomplete=\"off\"></label></p>");
        html.AppendLine("  <button>Send</button>");
        return html.Append("</form>").ToString();
    }

    private static void Ask(StringBuilder html, Question question, string name, string indent)
    {
        var required = question is { Required: true, AskedOnlyWhen: null } ? " required" : "";
        switch (question.Kind)
        {
            case var kind when !PlainAnswers.CanAsk(kind):
                if (kind is not WorkedOutKind)
                    html.Append(indent)
                        .Append("<!-- “")
                        .Append(Html.Encode(question.Wording))
                        .AppendLine("” cannot be asked in plain markup. -->");
                break;
            case HiddenKind:
                html.Append(indent).Append("<input type=\"hidden\" name=\"").Append(name).AppendLine("\">");
                break;
            case ChoiceKind { DropDown: true, Several: false } choice:
                Label(
                    question.Wording,
                    $"<select name=\"{name}\"{required}><option value=\"\"></option>{string.Concat(choice.Options.Select(option => $"<option value=\"{option.Key}\">{Html.Encode(option.Label)}</option>"))}</select>"
                );
                OwnWords(choice);
                break;
            case ChoiceKind choice:
                Group(
                    question.Wording,
                    choice.Options.Select(option =>
                        (
                            option.Label,
                            $"<input type=\"{(choice.Several ? "checkbox" : "radio")}\" name=\"{name}\" value=\"{option.Key}\"{(choice.Several ? "" : required)}>"
                        )
                    )
                );
                OwnWords(choice);
                break;
            case YesNoKind:
                Group(
                    question.Wording,
                    [
                        ("Yes", $"<input type=\"radio\" name=\"{name}\" value=\"yes\"{required}>"),
                        ("No", $"<input type=\"radio\" name=\"{name}\" value=\"no\"{required}>"),
                    ]
                );
                break;
            case ConsentKind consent:
                Label(consent.Statement, $"<input type=\"checkbox\" name=\"{name}\" value=\"yes\"{required}>");
                break;
            case AdvertisingKind advertising:
                Label(advertising.Statement, $"<input type=\"checkbox\" name=\"{name}\" value=\"yes\">");
                break;
            case PersonNameKind:
                Group(
                    question.Wording,
                    [
                        ("First name", $"<input name=\"{name}.given\" autocomplete=\"given-name\"{required}>"),
                        ("Family name", $"<input name=\"{name}.family\" autocomplete=\"family-name\">"),
                    ]
                );
                break;
            case AddressKind:
                Group(question.Wording, PlainAnswers.AddressParts.Select(part => (part, $"<input name=\"{name}.{part}\">")));
                break;
            case DateRangeKind range:
                Group(
                    question.Wording,
                    [
                        ("From", $"<input type=\"date\" name=\"{name}.from\">"),
                        ("To", $"<input type=\"date\" name=\"{name}.to\">"),
                        .. range.OrMonth
                            ? [("Or some time in", $"<input type=\"month\" name=\"{name}.month\">")]
                            : Array.Empty<(string, string)>(),
                    ]
                );
                break;
            case RowsKind rows:
                html.Append(indent)
                    .Append("<!-- For another ")
                    .Append(Html.Encode(rows.OneIsCalled))
                    .Append(" repeat this with ")
                    .Append(name)
                    .AppendLine(".1, .2 and so on. -->");
                html.Append(indent)
                    .Append("<fieldset>\n")
                    .Append(indent)
                    .Append("  <legend>")
                    .Append(Html.Encode(question.Wording))
                    .AppendLine("</legend>");
                foreach (var cell in rows.Questions)
                    Ask(html, cell, $"{name}.0.{cell.Key}", indent + "  ");
                html.Append(indent).AppendLine("</fieldset>");
                break;
            case LongTextKind text:
                Label(question.Wording, $"<textarea name=\"{name}\" maxlength=\"{text.MaxLength}\"{required}></textarea>");
                break;
            default:
                Label(question.Wording, $"<input {TypeOf(question.Kind)} name=\"{name}\"{required}>");
                break;
        }

        void Label(string words, string control) =>
            html.Append(indent).Append("<p><label>").Append(Html.Encode(words)).Append(' ').Append(control).AppendLine("</label></p>");

        void Group(string words, IEnumerable<(string Words, string Control)> parts)
        {
            html.Append(indent)
                .Append("<fieldset>\n")
                .Append(indent)
                .Append("  <legend>")
                .Append(Html.Encode(words))
                .AppendLine("</legend>");
            foreach (var part in parts)
            {
                // What is ticked stands before its words, what is written behind them.
                var (first, second) = part.Control.Contains("value=", StringComparison.Ordinal)
                    ? (part.Control, Html.Encode(part.Words))
                    : (Html.Encode(part.Words), part.Control);
                html.Append(indent).Append("  <label>").Append(first).Append(' ').Append(second).AppendLine("</label>");
            }

            html.Append(indent).AppendLine("</fieldset>");
        }

        void OwnWords(ChoiceKind choice)
        {
            if (choice.Options.FirstOrDefault(option => option.OwnWords) is { } own)
                Label(own.Label, $"<input name=\"{name}.ownWords\">");
        }
    }

    private static string TypeOf(QuestionKind kind) =>
        kind switch
        {
            EmailKind => "type=\"email\"",
            PhoneKind => "type=\"tel\"",
            WebAddressKind => "type=\"url\"",
            NumberKind { Whole: true } or ScaleKind => "type=\"number\"",
            NumberKind or MoneyKind => "type=\"number\" step=\"any\"",
            DateKind => "type=\"date\"",
            _ => "type=\"text\"",
        };
}
