using PorchLight.Core.Answers;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Records;

/// <summary>A field in which two records of one person differ, so that somebody has to choose.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Kept">What stands in the record that is kept.</param>
/// <param name="Other">What stands in the one that goes into it.</param>
public sealed record MergeConflict(string Field, Answer Kept, Answer Other);

/// <summary>What becomes of the client's own fields when two records of one person are made one.</summary>
/// <param name="Writes">What is written into the record that is kept, by field key.</param>
/// <param name="Conflicts">Where they differ, whatever was chosen, in the order of the catalogue.</param>
public sealed record MergePlan(IReadOnlyDictionary<string, Answer> Writes, IReadOnlyList<MergeConflict> Conflicts);

/// <summary>Makes one record of two of the same person. Fields of projects stay with their projects and are no matter here.</summary>
public static class ClientMerging
{
    /// <summary>
    /// What is empty in the record that is kept is filled from the other; files and rows come together where nothing that stands there is
    /// touched; whatever else differs stays as it is kept, unless the other's value was chosen. Values that say the same change nothing.
    /// </summary>
    /// <param name="kept">The client's values in the record that is kept, by field key.</param>
    /// <param name="other">Those in the other.</param>
    /// <param name="fields">The fields of the business; a value of a field that is gone stays in the history only.</param>
    /// <param name="takeOther">The keys of the fields whose value is taken from the other; those without a conflict do not matter.</param>
    public static MergePlan Plan(
        IReadOnlyDictionary<string, Answer> kept,
        IReadOnlyDictionary<string, Answer> other,
        FieldCatalogue fields,
        IReadOnlySet<string> takeOther
    )
    {
        var (writes, conflicts) = (new Dictionary<string, Answer>(), new List<MergeConflict>());
        foreach (var field in fields.All.Where(field => field.Scope == RecordScope.Client))
        {
            if (other.GetValueOrDefault(field.Key) is not { } theirs)
                continue;
            if (kept.GetValueOrDefault(field.Key) is not { } ours)
            {
                writes[field.Key] = theirs;
                continue;
            }

            var whole = Landing.Added(ours, theirs, field);
            if (FieldValues.IsSame(ours, whole))
                continue;
            if (Landing.OnlyAdds(ours, theirs, field))
            {
                writes[field.Key] = whole;
                continue;
            }

            conflicts.Add(new MergeConflict(field.Key, ours, theirs));
            if (takeOther.Contains(field.Key))
                writes[field.Key] = theirs;
        }

        return new MergePlan(writes, conflicts);
    }
}
