using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Server.Brand;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Inquiries;

/// <summary>Gathers what the program itself knows about a filling-in: its files, the lines that were looked up, the day.</summary>
internal sealed class FillingDesk(PorchDb db)
{
    /// <param name="version">The version that is answered.</param>
    /// <param name="filling">The send key of the filling-in.</param>
    /// <param name="given">The answers as the browser sent them.</param>
    /// <param name="business">The business.</param>
    /// <param name="now">The instant of asking.</param>
    public async Task<Surroundings> AroundAsync(
        FormVersion version, Guid filling, IReadOnlyDictionary<string, Answer?> given, Business business, Instant now, CancellationToken stop)
    {
        var around = new Surroundings(business.Region, version.Number, now, business.Calendar.Today(now));
        var kinds = version.Content.Questions.Where(question => given.GetValueOrDefault(question.Key) is not null).ToList();
        if (kinds.Any(question => question.Kind is FilesKind))
        {
            var files = await Unsent(version, filling).ToListAsync(stop);
            around = around with { Files = files.ToDictionary(file => file.Id.Value, file => file.Ref) };
        }

        var wanted = kinds.Select(question => (Kind: question.Kind as LookUpKind, Answer: given[question.Key] as LookUpAnswer))
            .Where(pair => pair.Kind is not null && pair.Answer is not null).Select(pair => (pair.Kind!, pair.Answer!.Key)).ToList();
        return wanted.Count == 0 ? around : around with { Lines = await ListEndpoints.LinesAsync(db, wanted, stop) };
    }

    /// <summary>The files uploaded with a filling-in that has not been sent.</summary>
    public IQueryable<StoredFile> Unsent(FormVersion version, Guid filling) =>
        db.StoredFiles.Where(file => file.Filling == filling && file.FormId == version.FormId && file.SubmissionId == null);
}
