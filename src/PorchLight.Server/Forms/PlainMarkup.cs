using System.Text;
using System.Text.Encodings.Web;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Forms;

/// <summary>Writes a form as plain HTML, for a developer to put into their own markup.</summary>
internal static class PlainMarkup
{
    /// <summary>The name of the field that people do not see.</summary>
    public const string Trap = "your-website-again";

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
            .Append(Trap)
            .AppendLine("\" tabindex=\"-1\" autocomplete=\"off\"></label></p>");
        html.AppendLine("  <button>Send</button>");
        return html.Append("</form>").ToString();
    }

    private static void Ask(StringBuilder html, Question question, string name, string indent)
    {
        var required = question is { Required: true, AskedOnlyWhen: null } ? " required" : "";
        switch (question.Kind.PlainControl())
        {
            case null when question.Kind is WorkedOutKind:
                break;
            case null:
                html.Append(indent)
                    .Append("<!-- “")
                    .Append(Html.Encode(question.Wording))
                    .AppendLine("” cannot be asked in plain markup. -->");
                break;
            case PlainUnseen:
                html.Append(indent).Append("<input type=\"hidden\" name=\"").Append(name).AppendLine("\">");
                break;
            case PlainLine line:
                var step = line.AnyStep ? " step=\"any\"" : "";
                Label(question.Wording, $"<input type=\"{line.Type}\"{step} name=\"{name}\"{required}>");
                break;
            case PlainLines lines:
                Label(question.Wording, $"<textarea name=\"{name}\" maxlength=\"{lines.MaxLength}\"{required}></textarea>");
                break;
            case PlainTick tick:
                Label(tick.Statement, $"<input type=\"checkbox\" name=\"{name}\" value=\"yes\"{required}>");
                break;
            case PlainChoices choices:
                Choose(choices);
                break;
            case PlainParts parts:
                Group(question.Wording, parts.Parts.Select(part => (part.Words, Input(part))));
                break;
            case PlainRows rows:
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
            case var other:
                throw new InvalidOperationException($"There is no markup for {other.GetType().Name}.");
        }

        string Input(PlainPart part) =>
            "<input"
            + (part.Type is null ? "" : $" type=\"{part.Type}\"")
            + $" name=\"{name}.{part.Name}\""
            + (part.FilledInAs is null ? "" : $" autocomplete=\"{part.FilledInAs}\"")
            + (part.NeededWhenRequired ? required : "")
            + ">";

        void Choose(PlainChoices choices)
        {
            if (choices.DropDown)
                Label(
                    question.Wording,
                    $"<select name=\"{name}\"{required}><option value=\"\"></option>{string.Concat(choices.Choices.Select(choice => $"<option value=\"{choice.Value}\">{Html.Encode(choice.Words)}</option>"))}</select>"
                );
            else
                Group(
                    question.Wording,
                    choices.Choices.Select(choice =>
                        (
                            choice.Words,
                            $"<input type=\"{(choices.Several ? "checkbox" : "radio")}\" name=\"{name}\" value=\"{choice.Value}\"{(choices.Several ? "" : required)}>"
                        )
                    )
                );
            if (choices.OwnWords is { } own)
                Label(own, $"<input name=\"{name}.ownWords\">");
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
    }
}
