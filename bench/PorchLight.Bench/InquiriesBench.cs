using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Bench;

/// <summary>The list of 20,000 inquiries; those the other measurements sent stand in it, too.</summary>
internal static class InquiriesBench
{
    private const int Most = 20_000;

    private static readonly (string Name, InquiryQuery Query, string Sql)[] Lists =
    [
        ("the list", new(), "SELECT Id FROM Inquiries ORDER BY Need, Urgency, Id LIMIT 100"),
        ("newest first", new() { Order = InquiryOrder.Received }, "SELECT Id FROM Inquiries ORDER BY Received DESC, Id DESC LIMIT 100"),
        ("by points", new() { Order = InquiryOrder.Score }, "SELECT Id FROM Inquiries ORDER BY Score DESC, Id DESC LIMIT 100"),
        (
            "by name",
            new() { Order = InquiryOrder.Name },
            "SELECT i.Id FROM Inquiries i JOIN Clients c ON c.Id = i.ClientId ORDER BY c.SortName, i.Id LIMIT 100"
        ),
        (
            "by budget",
            new() { Order = InquiryOrder.Budget },
            "SELECT i.Id FROM Inquiries i LEFT JOIN FieldValues v ON v.ProjectId = i.ProjectId AND v.Field = 'project.budget' AND v.IsCurrent "
                + "ORDER BY v.OrderNumber DESC LIMIT 100"
        ),
        (
            "of one fit",
            new() { Fits = [Fit.TalkFirst] },
            "SELECT Id FROM Inquiries WHERE Fit = 'TalkFirst' ORDER BY Need, Urgency LIMIT 100"
        ),
        (
            "of one stage",
            new() { Stages = ["offered"] },
            "SELECT i.Id FROM Inquiries i JOIN Projects p ON p.Id = i.ProjectId WHERE p.Stage = 'offered' LIMIT 100"
        ),
        (
            "nobody's",
            new() { LookedAfterBy = [null] },
            "SELECT i.Id FROM Inquiries i JOIN Projects p ON p.Id = i.ProjectId WHERE p.LooksAfterId IS NULL LIMIT 100"
        ),
        (
            "of one service",
            new() { Services = ["A mural"] },
            "SELECT ProjectId FROM FieldValues WHERE IsCurrent AND Field = 'project.service' AND OrderText = 'a mural' LIMIT 100"
        ),
        (
            "of one source",
            new() { Sources = ["By searching"] },
            "SELECT ClientId FROM FieldValues WHERE IsCurrent AND Field = 'client.source' AND OrderText = 'by searching' LIMIT 100"
        ),
        (
            "searched",
            new() { Words = "given17 howth" },
            "SELECT rowid FROM ClientWords WHERE words MATCH '\"given17\"* \"howth\"*' LIMIT 100"
        ),
    ];

    /// <summary>To be called when the clients are there: each of them gets an inquiry.</summary>
    public static async Task MeasureAsync(BenchApp app)
    {
        await app.AskAsync(FillAsync);
        using var owner = await ListBench.SignInAsync(app);
        var count = await app.AskAsync(db => db.Inquiries.CountAsync());
        foreach (var (name, query, sql) in Lists)
            await ListBench.MeasureAsync(app, owner, $"{count:N0} inquiries, {name}", "/api/inquiries/found", query, sql);
    }

    internal static async Task<int> FillAsync(PorchDb db)
    {
        var like = await db.Inquiries.AsNoTracking().OrderBy(one => one.Received).FirstAsync();
        var sent = (await db.Submissions.FindAsync(like.SubmissionId))!;
        var projects = await db
            .Projects.Where(project => !db.Inquiries.Any(inquiry => inquiry.ProjectId == project.Id))
            .Select(project => project.Id)
            .Take(Most)
            .ToListAsync();
        string[] stages = ["new", "talking", "offered", "parked", "booked", "finished", "lost"];
        for (var batch = 0; batch < projects.Count; batch += 1000)
        {
            db.ChangeTracker.Clear();
            await using var write = await db.WriteAsync(CancellationToken.None);
            var writer = new RecordWriter(db);
            foreach (var (id, index) in projects.Skip(batch).Take(1000).Select((id, index) => (id, batch + index)))
            {
                var project = (await db.Projects.FindAsync(id))!;
                project.Stage = stages[index % stages.Length];
                var submission = db
                    .Submissions.Add(
                        new Submission
                        {
                            Id = new Id<Submission>(Guid.CreateVersion7()),
                            FormId = like.FormId,
                            FormVersion = like.FormVersion,
                            SendKey = Guid.CreateVersion7(),
                            At = project.Opened,
                            Answers = sent.Answers,
                            SendOff = sent.SendOff,
                            ReceiptHash = Guid.NewGuid().ToString(),
                            ReceiptSealed = "",
                            PersonalLinkId = null,
                            ProofHash = null,
                        }
                    )
                    .Entity;
                var inquiry = new Inquiry
                {
                    Id = new Id<Inquiry>(Guid.CreateVersion7()),
                    SubmissionId = submission.Id,
                    FormId = like.FormId,
                    FormVersion = like.FormVersion,
                    ScreeningVersion = like.ScreeningVersion,
                    ClientId = project.ClientId,
                    ProjectId = project.Id,
                    Received = project.Opened,
                    Fit = (Fit)(index % 3),
                    Verdict = like.Verdict,
                    About = like.About,
                    Score = index * 31 % 120,
                    Flags = index % 40 == 0 ? 1 : 0,
                    CameFrom = null,
                    KnownBefore = false,
                    PromisedBy = project.Opened,
                    PromiseClock = like.PromiseClock,
                    PromiseHours = like.PromiseHours,
                };
                inquiry.Turn = InquiryTurn.At(project.Opened, owesReply: index % 200 == 0);
                db.Inquiries.Add(inquiry);
                var client = (await db.Clients.FindAsync(project.ClientId))!;
                var source = new ValueSource(ValueOrigin.Hand, "Bench", project.Opened);
                writer.Write(
                    client,
                    project,
                    "project.service",
                    new TextAnswer(index % 4 == 0 ? "A mural" : "Window gilding"),
                    null,
                    source
                );
                writer.Write(client, null, "client.source", new TextAnswer(index % 5 == 0 ? "By searching" : "At the fair"), null, source);
            }

            await write.SaveAsync(CancellationToken.None);
        }

        return projects.Count;
    }
}
