using System.ComponentModel.DataAnnotations.Schema;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;

namespace PorchLight.Server.Records;

/// <summary>Who we work for.</summary>
internal sealed class Client
{
    public required Id<Client> Id { get; init; }

    /// <summary>The name as lists show it.</summary>
    public required string Name { get; set; }

    /// <summary>Null when they left only a phone number.</summary>
    public required string? Email { get; set; }

    /// <summary>The address as clients are recognised by it.</summary>
    public required string? EmailKey { get; set; }
    public required Standing Standing { get; set; }
    public required Instant Since { get; set; }

    /// <summary>
    /// The client in whose records these went, because they are one person; null for everybody who is shown. What is left of one is how
    /// they are recognised.
    /// </summary>
    public Id<Client>? MergedIntoId { get; set; }

    /// <summary>The day they are erased on because the keeping period ends, as it is said a week before; null for nobody else.</summary>
    public LocalDate? EraseOn { get; set; }

    /// <summary>The import that made them; null for everybody else.</summary>
    public Id<ClientImport>? ImportId { get; init; }

    /// <summary>Whether nothing a person does about their answers turns them away; deal-breakers do not count for them.</summary>
    public bool AlwaysComesIn { get; set; }

    /// <summary>Whether only spam or tests made the record, so that no list of clients shows it.</summary>
    public bool IsAside { get; set; }

    /// <summary>The name as lists are put in order by it.</summary>
    public string SortName { get; set; } = "";

    /// <summary>Whether something about them changed that cannot be found by its words yet.</summary>
    public bool IsUnindexed { get; set; } = true;
}

/// <summary>A word the business sorts clients by.</summary>
internal sealed class ClientTag
{
    public required Id<Client> ClientId { get; init; }
    public required string Tag { get; init; }

    /// <summary>The import that brought it; null for a tag somebody gave them.</summary>
    public Id<ClientImport>? ImportId { get; init; }
}

/// <summary>The row of the word index that holds a client's words.</summary>
internal sealed class ClientSearchRow
{
    public long Row { get; init; }
    public required Id<Client> ClientId { get; init; }
}

/// <summary>Something two clients who are alike share; see <see cref="ClientTraits.Keys"/>.</summary>
internal sealed class ClientKey
{
    public required Id<Client> ClientId { get; init; }
    public required string Key { get; init; }
}

/// <summary>Two clients who are perhaps the same, until a person decides.</summary>
internal sealed class ClientPair
{
    public required Id<ClientPair> Id { get; init; }

    /// <summary>Of the two the one with the smaller identifier.</summary>
    public required Id<Client> OneId { get; init; }
    public required Id<Client> OtherId { get; init; }
    public required Likeness Likeness { get; set; }

    /// <summary>When somebody said that they are two; null while nobody has.</summary>
    public Instant? AreTwo { get; set; }
    public string? DecidedBy { get; set; }
}

/// <summary>Two records of one person that were made one, with what it takes to split them again.</summary>
internal sealed class ClientMerge
{
    public required Id<ClientMerge> Id { get; init; }
    public required Id<Client> KeptId { get; init; }
    public required Id<Client> OtherId { get; init; }
    public required MergeMemory Memory { get; init; }
    public required string By { get; init; }
    public required Instant At { get; init; }
    public Instant? Split { get; set; }
}

/// <summary>What was where before two records were made one.</summary>
/// <param name="Rows">By table, the keys of the rows that were the other's.</param>
/// <param name="Current">The other's values that stood in fields of the client.</param>
/// <param name="Written">The values merging wrote into the record that is kept.</param>
/// <param name="Tags">Tags the kept record got.</param>
/// <param name="Standing">How the business stood with the one that is kept.</param>
/// <param name="Since">Since when it knew the one that is kept.</param>
/// <param name="AlwaysComesIn">Whether who is kept always came in; null in what was made one before that was remembered.</param>
internal sealed record MergeMemory(
    IReadOnlyDictionary<string, IReadOnlyList<string>> Rows,
    IReadOnlyList<Guid> Current,
    IReadOnlyList<Guid> Written,
    IReadOnlyList<string> Tags,
    Standing Standing,
    Instant Since,
    bool? AlwaysComesIn = null
);

/// <summary>A way to look at the clients, under a name.</summary>
internal sealed class SavedView
{
    public required Id<SavedView> Id { get; init; }
    public required string Name { get; set; }
    public required ClientQuery Query { get; set; }
}

/// <summary>One piece of work for a client.</summary>
internal sealed class Project
{
    public required Id<Project> Id { get; init; }
    public required Id<Client> ClientId { get; init; }

    /// <summary>The form it came by; null for one that was begun by hand.</summary>
    public required Id<Form>? FormId { get; init; }
    public required string Title { get; set; }
    public required Instant Opened { get; init; }

    /// <summary>The key of the stage it stands in, of the business's list.</summary>
    public required string Stage { get; set; }

    /// <summary>The day it comes back from a stage where nothing happens; null for one without an end, and elsewhere.</summary>
    public LocalDate? ParkedUntil { get; set; }

    /// <summary>Why it will not come, of the business's list; null where nobody said.</summary>
    public string? LostReason { get; set; }

    /// <summary>The user who looks after it; null for nobody.</summary>
    public Guid? LooksAfterId { get; set; }

    /// <summary>When it came to a stage that closes it; null while it is open.</summary>
    public Instant? Closed { get; set; }

    /// <summary>Whether it is the piece of work of its client that began last: the one lists show.</summary>
    public bool IsLatest { get; set; }
}

/// <summary>Something to do for a client, or a day to think of.</summary>
internal sealed class ClientTask
{
    public required Id<ClientTask> Id { get; init; }
    public required Id<Client> ClientId { get; init; }

    /// <summary>The project it is about; null for the client.</summary>
    public required Id<Project>? ProjectId { get; init; }
    public required string Title { get; set; }

    /// <summary>Whether it is only a day to think of; nobody has to do it, and it has a day.</summary>
    public required bool IsDate { get; init; }

    /// <summary>The day it is due, or is; null for a task that is due whenever.</summary>
    public LocalDate? On { get; set; }

    /// <summary>The user who does it; null for whoever comes to it.</summary>
    public Guid? ForId { get; set; }

    /// <summary>When it was done; null while it is not, and for days.</summary>
    public Instant? Done { get; set; }
    public string? DoneBy { get; set; }
    public required string By { get; init; }
    public required Instant At { get; init; }
}

/// <summary>How a value came into a field.</summary>
internal enum ValueOrigin
{
    /// <summary>It is an answer of an inquiry.</summary>
    Inquiry,

    /// <summary>A person of the business wrote it.</summary>
    Hand,

    /// <summary>A person of the business settled a difference.</summary>
    Settled,

    /// <summary>It came from another record of the same person, or went back there.</summary>
    Merged,

    /// <summary>It came out of a file, or was there before that was taken back.</summary>
    Imported,

    /// <summary>A step of a follow-through wrote it.</summary>
    FollowThrough,

    /// <summary>The client said so, by the link in a message.</summary>
    Unsubscribed,
}

/// <summary>A value written into a field, with where it came from. Rows are only added; the newest is the value.</summary>
internal sealed class FieldValue : IWrittenValue
{
    public required Id<FieldValue> Id { get; init; }
    Guid IWrittenValue.Key => Id.Value;
    public required Id<Client> ClientId { get; init; }

    /// <summary>Null for a field of the client.</summary>
    public required Id<Project>? ProjectId { get; init; }
    public required string Field { get; init; }

    /// <summary>Null for a field that was emptied.</summary>
    public required Answer? Value { get; init; }

    /// <summary>What stood there before, or null when the field was empty.</summary>
    public Answer? Before { get; init; }

    /// <summary>Whether it is what stands there now.</summary>
    public bool IsCurrent { get; set; }

    /// <summary>Whether lists show it: it stands there now, and of fields of projects in the piece of work that began last.</summary>
    public bool IsListed { get; set; }

    /// <summary>What lists compare and put in order, of words and of numbers; see <see cref="ValueOrder"/>.</summary>
    public string? OrderText { get; set; }
    public double? OrderNumber { get; set; }
    public ValueOrigin Origin { get; init; }

    /// <summary>The inquiry it came by; null for what the business wrote itself.</summary>
    public Id<Inquiry>? InquiryId { get; init; }
    public Id<Form>? FormId { get; init; }
    public int? FormVersion { get; init; }
    public string? Question { get; init; }

    /// <summary>The import it came by; null for every other value.</summary>
    public Id<ClientImport>? ImportId { get; init; }

    /// <summary>Who gave it.</summary>
    public required string By { get; init; }
    public required Instant At { get; init; }
}

/// <summary>Words in the notes of a client or project.</summary>
internal sealed class Note
{
    public required Id<Note> Id { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project>? ProjectId { get; init; }

    /// <summary>What was asked; empty for what the business wrote itself.</summary>
    public required string Heading { get; init; }
    public required string Text { get; set; }

    /// <summary>The inquiry it came by; null for what the business wrote itself.</summary>
    public Id<Inquiry>? InquiryId { get; init; }
    public required string By { get; init; }
    public required Instant At { get; init; }

    /// <summary>The import it came by; null for every other note.</summary>
    public Id<ClientImport>? ImportId { get; init; }

    /// <summary>Whether it stands above the others.</summary>
    public bool IsPinned { get; set; }
}

/// <summary>What a note said before somebody changed it.</summary>
internal sealed class NoteRevision
{
    public required Id<NoteRevision> Id { get; init; }
    public required Id<Note> NoteId { get; init; }

    /// <summary>What it said until then.</summary>
    public required string Text { get; init; }

    /// <summary>Who changed it.</summary>
    public required string By { get; init; }
    public required Instant At { get; init; }
}

/// <summary>How a difference was settled.</summary>
internal enum Settlement
{
    KeptOurs,
    TookTheirs,
    WroteAnother,
}

/// <summary>An answer unlike what is on file. It stays when somebody has settled it, so that both sides stay visible.</summary>
internal sealed class RecordDifference
{
    public required Id<RecordDifference> Id { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project> ProjectId { get; init; }
    public required Id<Inquiry> InquiryId { get; init; }
    public required string Field { get; init; }
    public required string Question { get; init; }
    public required Answer Theirs { get; init; }
    public required Answer? Ours { get; init; }
    public required Instant At { get; init; }

    /// <summary>What they meant, as a person of the business corrected it before settling; null while nobody has.</summary>
    public Answer? Corrected { get; set; }
    public string? CorrectedBy { get; set; }

    /// <summary>What counts as theirs: what they meant where that was corrected, else what they said.</summary>
    [NotMapped]
    public Answer Meant => Corrected ?? Theirs;

    /// <summary>Null while it is open.</summary>
    public Instant? SettledAt { get; set; }
    public string? SettledBy { get; set; }
    public Settlement? Settlement { get; set; }

    /// <summary>What settling wrote, for taking it back; null when it wrote nothing.</summary>
    public Id<FieldValue>? WrittenValueId { get; set; }
    public Id<Note>? WrittenNoteId { get; set; }
}

/// <summary>Something that happened, written in the transaction that caused it and never changed.</summary>
internal sealed class LoggedEvent
{
    /// <summary>The order in which things happened.</summary>
    public required long Seq { get; init; }
    public required Instant At { get; init; }

    /// <summary>The kind of what happened, so that it can be asked for.</summary>
    public required string Kind { get; init; }
    public required DomainEvent What { get; init; }
    public required bool Rings { get; init; }

    /// <summary>Null for what is about somebody who is no client, or not yet.</summary>
    public required Id<Client>? ClientId { get; init; }
    public required Id<Project>? ProjectId { get; init; }
    public required Id<Inquiry>? InquiryId { get; init; }
    public required Id<Run>? RunId { get; init; }
    public required Id<OutgoingMail>? MailId { get; init; }
}
