using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Files from the lead's own machine.</summary>
/// <param name="AtMost">How many; at least 1.</param>
/// <param name="MaxBytes">How large each may be.</param>
/// <param name="Groups">What sorts of files are taken; empty for every sort we know.</param>
[QuestionKindName("files", "Files")]
public sealed record FilesKind(int AtMost = 5, long MaxBytes = FilesKind.UsualMaxBytes, IReadOnlyList<FileGroup>? Groups = null)
    : QuestionKind<FilesAnswer>
{
    /// <summary>25 MB.</summary>
    public const long UsualMaxBytes = 25L * 1024 * 1024;

    /// <inheritdoc/>
    public override string Describe() => AtMost == 1 ? "A file" : $"Up to {AtMost} files";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.MayBeRequired;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Files;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => null;

    internal override string MissingSentence() => "Please add a file.";

    internal override IEnumerable<string> Faults() =>
        AtMost < 1 || MaxBytes < 1 ? ["At least one file of some size must be allowed here."] : [];

    /// <summary>Why a file cannot be taken, as a sentence that says what to do, or null.</summary>
    /// <param name="file">The file, with its size and what its content shows it to be.</param>
    public string? CheckFile(FileRef file) =>
        file.Bytes > MaxBytes ? $"“{file.Name}” is larger than {FileSize.Say(MaxBytes)}. Please send a smaller copy."
        : Groups is { Count: > 0 } groups && !groups.Contains(file.Group)
            ? $"“{file.Name}” is not a file of the kind we can use here. These are: {string.Join(", ", FileTypes.Endings(groups))}."
        : null;

    // Only what was uploaded with this filling-in, as the program has it.
    internal override Answer? Normalise(FilesAnswer answer, NormaliseContext context) =>
        answer.Files.DistinctBy(file => file.Id).Select(file => context.Files.GetValueOrDefault(file.Id)).OfType<FileRef>().ToArray()
            is { Length: > 0 } files
            ? new FilesAnswer(files)
            : null;

    internal override string? Check(FilesAnswer answer, LocalDate today) =>
        answer.Files.Count <= AtMost ? answer.Files.Select(CheckFile).FirstOrDefault(wrong => wrong is not null)
        : AtMost == 1 ? "Only one file fits here. Please take the others away."
        : $"At most {AtMost} files fit here. Please take some away.";

    internal override Answer? Read(string text) => null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new FilesAnswer([])];
}
