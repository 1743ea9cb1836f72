using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;

namespace PorchLight.Core.Workbench;

/// <summary>What keeps nobody from publishing a form, and should be known before.</summary>
public static class FormWarnings
{
    /// <summary>The warnings, a sentence each.</summary>
    /// <param name="form">The form as it is worked on, with the business's lists in it.</param>
    /// <param name="signalsWait">Whether signals were changed that are not in force, so that they sort nobody.</param>
    public static IReadOnlyList<string> Of(FormContent form, bool signalsWait)
    {
        var reaches = Contact
            .WithContactLanding(form)
            .Questions.Any(question =>
                question.LandsIn is SetField set && (set.Field == BuiltInFields.Email.Key || set.Field == BuiltInFields.Phone.Key)
            );
        return
        [
            .. reaches
                ? Array.Empty<string>()
                : ["Nobody who fills it in can be answered: no page asks for an e-mail address or a phone number."],
            .. signalsWait ? ["Your latest signals are not in force yet, so nobody is sorted by them."] : Array.Empty<string>(),
        ];
    }
}
