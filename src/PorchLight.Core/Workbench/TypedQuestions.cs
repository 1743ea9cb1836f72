using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>Makes questions out of lines that were typed or pasted.</summary>
public static class TypedQuestions
{
    /// <summary>
    /// A question a line, each of the kind its words propose, with a key that is free in the form. It lands in the proposed field
    /// when no other question of the form does, and none before it in the list. Who they are and how they are reached has to be answered,
    /// until somebody changes that.
    /// </summary>
    /// <param name="text">The lines (<see cref="TypedLines.Read"/>); without any there are no questions.</param>
    /// <param name="form">The form they are added to; it is left as it is.</param>
    /// <param name="context">What amounts are proposed in and around.</param>
    public static IReadOnlyList<Question> Read(string text, FormContent form, ProposalContext context)
    {
        var keys = KeysOf(form);
        var landed = form.Questions.Select(question => question.LandsIn).OfType<SetField>().ToHashSet();
        var questions = new List<Question>();
        foreach (var line in TypedLines.Read(text))
        {
            var proposal = KindProposals.For(line, context);
            questions.Add(
                new Question(ItemKeys.For(line, keys), line, proposal.Kind)
                {
                    LandsIn = proposal.LandsIn is SetField field && landed.Add(field) ? field : null,
                    // Whoever cannot be named or reached cannot be answered.
                    Required = proposal.Kind is EmailKind or PhoneKind or PersonNameKind && proposal.LandsIn is SetField,
                }
            );
        }

        return questions;
    }

    /// <summary>Every key that is taken in a form.</summary>
    internal static HashSet<string> KeysOf(FormContent form) =>
        [
            .. form.Pages.Select(page => page.Key),
            .. form.Pages.SelectMany(page => page.Items).Select(item => item.Key),
            .. form.Questions.SelectMany(question => question.RowQuestions).Select(question => question.Key),
            .. form.SendOffs.Append(form.DefaultSendOff).Select(sendOff => sendOff.Key),
        ];
}
