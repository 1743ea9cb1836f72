using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>A form: its working copy, its light and its link.</summary>
internal sealed class Form
{
    public required Id<Form> Id { get; init; }

    /// <summary>The working copy; leads see only published versions.</summary>
    public required FormContent Draft { get; set; }

    /// <summary>Rises with every saved edit, so that an edit of something older is noticed.</summary>
    public int DraftRevision { get; set; } = 1;
    public required Instant DraftSaved { get; set; }

    /// <summary>The revision of the working copy that was published last; zero before the first time.</summary>
    public int PublishedRevision { get; set; }

    /// <summary>The number of the version that leads see; zero before the first time.</summary>
    public int PublishedVersion { get; set; }

    /// <summary>The number of the screening in force.</summary>
    public int ScreeningVersion { get; set; }

    /// <summary>A screening that is being worked on, and sorts nobody yet; null while there is none beside the one in force.</summary>
    public ScreeningRules? ScreeningDraft { get; set; }
    public bool LightOn { get; set; }
    public required string AwayNote { get; set; }

    /// <summary>What holds beside the words, for every version.</summary>
    public FormSettings Settings { get; set; } = new();

    /// <summary>The key of the service it asks about, of the business's list; null for none in particular.</summary>
    public string? Service { get; set; }

    /// <summary>Since when it is put away; null while it is among the others.</summary>
    public Instant? Archived { get; set; }
    public required string LinkHash { get; init; }
    public required string LinkSealed { get; init; }
}

/// <summary>What leads saw under one number; never changed.</summary>
internal sealed class FormVersion
{
    public required Id<Form> FormId { get; init; }
    public required int Number { get; init; }
    public required FormContent Content { get; init; }
    public required Instant Published { get; init; }
    public required string PublishedBy { get; init; }
}

/// <summary>The rules of screening under one number; never changed.</summary>
internal sealed class ScreeningVersion
{
    public required Id<Form> FormId { get; init; }
    public required int Number { get; init; }
    public required ScreeningRules Rules { get; init; }

    /// <summary>Since when it is in force, and who put it there; null for the one a form began with.</summary>
    public Instant? Since { get; init; }
    public string? By { get; init; }
}

internal static class FormMaking
{
    /// <summary>A new form, unpublished and with its light off, as part of the caller's transaction.</summary>
    public static Form AddForm(this PorchDb db, Tokens tokens, FormContent content, string awayNote, Instant at)
    {
        var link = tokens.Create();
        return db
            .Forms.Add(
                new Form
                {
                    Id = new Id<Form>(Guid.CreateVersion7()),
                    Draft = content,
                    DraftSaved = at,
                    AwayNote = awayNote,
                    LinkHash = link.Hash,
                    LinkSealed = link.Sealed,
                }
            )
            .Entity;
    }

    /// <summary>Publishes the working copy, with the business's lists in it as they stand, as the next version.</summary>
    public static void Publish(this PorchDb db, Form form, BusinessLists lists, Instant at, string by)
    {
        form.PublishedVersion++;
        form.PublishedRevision = form.DraftRevision;
        db.FormVersions.Add(
            new FormVersion
            {
                FormId = form.Id,
                Number = form.PublishedVersion,
                Content = lists.Into(form.Draft.Tidy()),
                Published = at,
                PublishedBy = by,
            }
        );
    }

    /// <summary>The rules as the form's next version of screening.</summary>
    /// <param name="since">When a person put it into force, and who; null for the one a form begins with.</param>
    public static void AddScreening(this PorchDb db, Form form, ScreeningRules rules, (Instant At, string By)? since = null) =>
        db.ScreeningVersions.Add(
            new ScreeningVersion
            {
                FormId = form.Id,
                Number = ++form.ScreeningVersion,
                Rules = rules,
                Since = since?.At,
                By = since?.By,
            }
        );
}
