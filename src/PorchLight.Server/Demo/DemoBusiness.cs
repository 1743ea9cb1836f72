using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;
using PorchLight.Core.Ready;
using PorchLight.Core.Screening;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.StandIns.Mail;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Demo;

/// <summary>
/// Ochre Wren, a made-up studio for hand-painted signs and murals. Its last days are played through the same code that
/// serves real use, at past instants.
/// </summary>
internal sealed class DemoBusiness(
    PorchDb db,
    IServiceScopeFactory scopes,
    UserManager<User> users,
    RoleManager<IdentityRole<Guid>> roles,
    Tokens tokens,
    FileStore store,
    FieldCatalogues catalogues,
    AnswerContextLoader answers,
    TimeProvider time
)
{
    public const string OwnerMail = "maren@ochrewren.example";
    public const string MemberMail = "sunil@ochrewren.example";
    public const string Password = "the-lamp-is-on";

    /// <summary>Makes the demo business where the setting asks for it and there is no business yet.</summary>
    public static async Task SeedAsync(IServiceProvider services)
    {
        await using var scope = services.CreateAsyncScope();
        if (
            scope.ServiceProvider.GetRequiredService<IConfiguration>().GetValue("PorchLight:Demo", false)
            && !await scope.ServiceProvider.GetRequiredService<PorchDb>().Businesses.AnyAsync()
        )
            await scope
                .ServiceProvider.GetRequiredService<DemoBusiness>()
                .MakeAsync(
                    scope.ServiceProvider.GetRequiredService<BusinessClock>().GetCurrentInstant(),
                    scope.ServiceProvider.GetRequiredService<IConfiguration>().GetValue("PorchLight:DemoPeople", true),
                    scope.ServiceProvider.GetRequiredService<IConfiguration>().GetValue("PorchLight:DemoHistory", true)
                );
    }

    private async Task MakeAsync(Instant now, bool people, bool history)
    {
        var business = MakeStudio();
        var begins = now - (people && history ? DemoHistory.Length : Duration.FromDays(30));
        var things = people ? await DemoFiles.TakeInAsync(db, store, time) : null;
        Form form;
        DemoForms? forms;
        await using (var write = await db.WriteAsync(CancellationToken.None))
        {
            db.Businesses.Add(business);
            var talk = things is null ? (Guid?)null : Guid.CreateVersion7();
            form = MakeForm(business.Lists, talk, begins);
            forms = things is null ? null : MakeOtherForms(business, things, form, begins);
            await MakeUserAsync(OwnerMail, "Maren Tolliver", Roles.Owner);
            await MakeUserAsync(MemberMail, "Sunil Abara", Roles.Member);
            if (forms is not null)
                DemoMeetings.AddTypes(
                    db,
                    tokens,
                    (await users.FindByEmailAsync(OwnerMail))!.Id,
                    (await users.FindByEmailAsync(MemberMail))!.Id,
                    talk!.Value
                );
            await write.SaveAsync(CancellationToken.None);
        }

        if (forms is null)
            return;

        if (history)
            await PlayHistoryAsync(business, forms, now);
        foreach (var action in DemoPeople.Actions(now, business.Calendar).OrderBy(action => action.At))
        {
            await LetTimePassAsync(action.At);
            await PlayAsync(form, action);
        }

        await LetTimePassAsync(now);
        await MakeLinksAsync(forms.Site, now - Duration.FromHours(3));
        var walls = (await db.Forms.FindAsync(forms.ByKind[DemoFormKind.Wall]))!;
        var owner = (await users.FindByEmailAsync(OwnerMail))!;
        await DemoUnfinishedForms.AddAsync(db, tokens, walls, now);
        if (history)
        {
            await using var scope = scopes.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<DemoOddInquiries>().PlayAsync(walls, owner, now);
            await new DemoFollowThroughs(scopes).PlayAsync(owner, now);
            await new DemoMeetings(scopes).PlayAsync(owner.Id, now);
            await new DemoMeetings(scopes).KeepOutsideCalendarAsync(owner, now);
            await LetTimePassAsync(now);
        }

        await using var seen = await db.WriteAsync(CancellationToken.None);
        // From now on: nobody shall be reminded to thank people for what they said a year ago.
        (owner, var stored) = ((await users.FindByIdAsync(owner.Id.ToString()))!, await db.BusinessAsync());
        stored.Lists = stored.Lists with
        {
            Sources = [.. stored.Lists.Sources.Select(source => source with { IsReferral = source.Key == "past-client" })],
        };
        var signs = (await db.Forms.FindAsync(forms.ByKind[DemoFormKind.Sign]))!;
        signs.Settings = signs.Settings with { Capacity = new Capacity("when", await LimitsAsync(signs, stored.Calendar.Today(now))) };
        // What rang before the last half day has been seen.
        owner.BellSeen =
            await db.Events.Where(logged => logged.At < now - Duration.FromHours(12)).MaxAsync(logged => (long?)logged.Seq) ?? 0;
        await users.UpdateAsync(owner);
        await seen.SaveAsync(CancellationToken.None);
    }

    /// <summary>The month that begins within 30 days is full, there are two left in the next, and more in the third.</summary>
    private async Task<List<MonthLimit>> LimitsAsync(Form form, LocalDate today)
    {
        var months = Enumerable.Range(1, 3).Select(today.PlusDays(30).ToYearMonth().PlusMonths).ToList();
        var taken = await answers.TakenAsync(form.Id, CancellationToken.None);
        return [.. months.Select((month, index) => new MonthLimit(month, taken.GetValueOrDefault(month) + index * 2))];
    }

    /// <summary>The eighteen months before the last days.</summary>
    private async Task PlayHistoryAsync(Business business, DemoForms forms, Instant now)
    {
        await using (var write = await db.WriteAsync(CancellationToken.None))
        {
            await DemoHistoryPlayer.AddFieldsAsync(db);
            await write.SaveAsync(CancellationToken.None);
        }

        catalogues.Forget();
        foreach (var scene in DemoHistory.Scenes(now, business.Calendar))
        {
            await LetTimePassAsync(scene.At);
            await using var scope = scopes.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<DemoHistoryPlayer>().PlayAsync(scene, forms.ByKind, now);
        }
    }

    private static Business MakeStudio()
    {
        var day = new OpenSpan(new LocalTime(9, 0), new LocalTime(17, 30));
        return new Business
        {
            Name = "Ochre Wren",
            OwnerName = "Maren Tolliver",
            MailAddress = "hello@ochrewren.example",
            Region = "IE",
            Currency = "EUR",
            Zone = "Europe/Dublin",
            Hours = new WorkingHours(
                [
                    .. new[]
                    {
                        IsoDayOfWeek.Monday,
                        IsoDayOfWeek.Tuesday,
                        IsoDayOfWeek.Wednesday,
                        IsoDayOfWeek.Thursday,
                        IsoDayOfWeek.Friday,
                    }.Select(one => new DayHours(one, [day])),
                ],
                [],
                SendingWindow.Usual
            ),
            PromiseHours = 48,
            PromiseClock = PromiseClock.WorkingDays,
            Look = BrandLook.Plain with { Accent = "#8a3b1e" },
            ContactLines = "+353 1 555 0199\nThe old sail loft, Howth harbour\nTuesday to Friday, we answer the phone before ten",
            Lists = Lists,
            IsDemo = true,
        };
    }

    private static BusinessLists Lists { get; } =
        new(
            [
                new Service("lettering", "Shopfront lettering", 350),
                new Service("gilding", "Window gilding", 600),
                new Service("mural", "A mural", 1500)
                {
                    LeadWeeks = 4,
                    BookingWeeks = 40,
                    Area = ["Dublin", "Howth", "Malahide", "Bray", "Dún Laoghaire"],
                },
                new Service("workshop", "A painting workshop", 420),
            ],
            [
                new Source("past-client", "Through someone you painted for"),
                new Source("saw-one", "I saw one of your walls"),
                new Source("search", "By searching"),
            ]
        )
        {
            Colleagues =
            [
                new TradeColleague("quill", "Quill & Batten", "painted boards and vans, hello@quillbatten.example"),
                new TradeColleague("glass", "Isolde Ferns", "lettering on glass, isolde@fernsglass.example"),
            ],
            Stages = [.. Stage.Usual.Select(stage => stage.Key == "under-way" ? stage with { Name = "On the wall" } : stage)],
        };

    /// <summary>The forms of the demo.</summary>
    /// <param name="ByKind">Those that leads send.</param>
    /// <param name="Site">The one that is sent to clients.</param>
    private sealed record DemoForms(IReadOnlyDictionary<DemoFormKind, Id<Form>> ByKind, Form Site);

    /// <summary>The other four forms.</summary>
    private DemoForms MakeOtherForms(Business business, DemoFiles things, Form walls, Instant at)
    {
        var lists = business.Lists;
        business.OwnerPhoto = things.Maren;
        var signs = Make(
            DemoSign.Form(things, walls.Id.Value),
            DemoSign.Screening,
            "We are booked with signs until the spring. Please look in again in February.",
            new FormSettings { Capacity = new Capacity("when", []) },
            "lettering"
        );
        var workshop = Make(
            DemoWorkshop.Form(things),
            DemoWorkshop.Screening,
            "We plan no workshops in the dark months. The next ones are in March.",
            new FormSettings { MostAnswers = 60, Guard = new SpamGuard(Proof: true) },
            "workshop"
        );
        var site = Make(
            DemoRequests.Site,
            DemoRequests.NoScreening,
            "This is not needed any more. Thank you.",
            new FormSettings { Admission = Admission.PersonalLinkAndCode, About = ProjectAssignment.WorkInHand }
        );
        Make(
            DemoRequests.HowDidItGo,
            DemoRequests.NoScreening,
            "We are not asking just now. Thank you for wanting to tell us.",
            new FormSettings { Admission = Admission.PersonalLink, About = ProjectAssignment.WorkInHand }
        );
        (walls.Settings, walls.Service) = (new FormSettings { TakesPlainPosts = true, FollowsUpUnfinished = true }, "mural");
        walls.Draft = walls.Draft with
        {
            NotForUs = new NotForUs("Should your own people paint it?", workshop.Id.Value, "Plan a painting workshop"),
        };
        walls.DraftRevision++;
        db.Publish(walls, lists, at, "Maren Tolliver");
        return new DemoForms(
            new Dictionary<DemoFormKind, Id<Form>>
            {
                [DemoFormKind.Wall] = walls.Id,
                [DemoFormKind.Sign] = signs.Id,
                [DemoFormKind.Workshop] = workshop.Id,
            },
            site
        );

        Form Make(FormContent content, ScreeningRules screening, string awayNote, FormSettings settings, string? service = null)
        {
            if (
                FormStructure.Check(lists.Into(content), FieldCatalogue.BuiltIn).Concat(screening.Check()).ToList() is
                { Count: > 0 } findings
            )
                throw new InvalidOperationException($"The demo form “{content.Title}” cannot be published: {string.Join(" ", findings)}");
            var form = db.AddForm(tokens, content, awayNote, at);
            db.AddScreening(form, screening);
            db.AddFollowThroughs([ReadyForms.Thanks(form.Id.Value, content.Title)]);
            db.Publish(form, lists, at, "Maren Tolliver");
            form.LightOn = true;
            (form.Settings, form.Service) = (settings, service);
            return form;
        }
    }

    /// <summary>Links to the request about site and access: for a client of ours, and for somebody who only wrote a mail.</summary>
    private async Task MakeLinksAsync(Form site, Instant at)
    {
        await using var write = await db.WriteAsync(CancellationToken.None);
        var pilar = await db.Clients.SingleAsync(client => client.EmailKey == "pilar@ingleby-coffee.example");
        Add(pilar.Email!, "Pilar", "Ingleby", pilar.Id);
        Add("dervla@quayside-clinic.example", "Dervla", "Roe", null);
        await write.SaveAsync(CancellationToken.None);

        void Add(string email, string given, string family, Id<Client>? client)
        {
            var link = tokens.Create();
            db.PersonalLinks.Add(
                new PersonalLink
                {
                    Id = new Id<PersonalLink>(Guid.CreateVersion7()),
                    FormId = site.Id,
                    LinkHash = link.Hash,
                    LinkSealed = link.Sealed,
                    Email = email,
                    GivenName = given,
                    FamilyName = family,
                    ClientId = client,
                    MadeBy = "Maren Tolliver",
                    Made = at,
                    GoodUntil = at + Retention.PersonalLink,
                }
            );
        }
    }

    /// <param name="talk">The meeting type whose times whoever fits is shown; null for none.</param>
    private Form MakeForm(BusinessLists lists, Guid? talk, Instant at)
    {
        var form = db.AddForm(
            tokens,
            DemoForm.Wall with
            {
                SendOffs = [.. DemoForm.Wall.SendOffs.Select(end => end.Key == DemoForm.ComeIn ? end with { Meeting = talk } : end)],
            },
            "We are up on a scaffold and not taking new walls just now. Please look in again next month.",
            at
        );
        db.AddScreening(form, DemoForm.Screening);
        db.AddFollowThroughs([DemoForm.AfterAnInquiry(form.Id.Value), DemoForm.AfterAKindNo(form.Id.Value)]);
        db.Publish(form, lists, at, "Maren Tolliver");
        form.LightOn = true;
        return form;
    }

    private Task MakeUserAsync(string mail, string name, string role) =>
        users.MakeUserAsync(
            roles,
            new User
            {
                Id = Guid.CreateVersion7(),
                UserName = mail,
                Email = mail,
                DisplayName = name,
            },
            Password,
            role
        );

    private async Task PlayAsync(Form form, DemoAction action)
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var mine = services.GetRequiredService<PorchDb>();
        if (action is DemoAction.Sends sends)
        {
            var result = await services
                .GetRequiredService<Intake>()
                .SendAsync(
                    new FormTarget((await mine.Forms.FindAsync(form.Id))!, null),
                    new SubmissionRequest(1, Guid.CreateVersion7(), sends.Answers, sends.CameFrom),
                    null,
                    action.At,
                    CancellationToken.None
                );
            if (result is IntakeResult.Refused refused)
                throw new InvalidOperationException(
                    $"The demo inquiry of {action.Email} was refused: {refused.Sentence} {string.Join(" ", refused.Findings)}"
                );
            return;
        }

        if (action is DemoAction.Books books)
        {
            var booker = await mine.Clients.SingleAsync(one => one.EmailKey == books.Email);
            await new DemoMeetings(scopes).BookFirstTalkAsync(booker.Id, books.At);
            return;
        }

        await using var write = await mine.WriteAsync(CancellationToken.None);
        var client = await mine.Clients.SingleAsync(one => one.EmailKey == action.Email);
        switch (action)
        {
            case DemoAction.Replies answers:
                var last = await mine
                    .PracticeMail.Where(message => message.ClientId == client.Id && !message.Incoming)
                    .OrderByDescending(message => message.At)
                    .FirstAsync();
                await PracticeMailbox.AnswerAsync(
                    mine,
                    services.GetRequiredService<MailIntake>(),
                    last,
                    PracticeAnswer.Reply,
                    answers.Text,
                    action.At
                );
                break;
            case DemoAction.Nods nods:
                var run = await mine.Runs.SingleAsync(one => one.ClientId == client.Id && one.Active);
                var step = run.State.Current!.Key;
                var draft = run.Drafts.ByStep[step];
                var filled = draft with
                {
                    Parts = [.. draft.Parts.Select(part => part is GapPart gap ? gap with { Filled = nods.GapText } : part)],
                };
                run.Drafts = new RunDrafts(new Dictionary<string, MessageDraft>(run.Drafts.ByStep) { [step] = filled });
                await services
                    .GetRequiredService<RunEngine>()
                    .NodAsync(run, step, action.At, sendNow: true, (await mine.Users.SingleAsync(user => user.Email == OwnerMail)).Id);
                break;
        }

        await write.SaveAsync(CancellationToken.None);
    }

    /// <summary>Lets everything fall due that falls due until then, each at its own instant, and delivers the mail.</summary>
    private async Task LetTimePassAsync(Instant until)
    {
        while (true)
        {
            await using var scope = scopes.CreateAsyncScope();
            var mine = scope.ServiceProvider.GetRequiredService<PorchDb>();
            await using var write = await mine.WriteAsync(CancellationToken.None);
            if (
                await mine.Runs.Where(run => run.NextMoment <= until).OrderBy(run => run.NextMoment).FirstOrDefaultAsync()
                is not { NextMoment: { } moment } run
            )
                break;
            await scope.ServiceProvider.GetRequiredService<RunEngine>().AdvanceAsync(run, moment);
            await write.SaveAsync(CancellationToken.None);
        }

        await using var mailScope = scopes.CreateAsyncScope();
        var store = mailScope.ServiceProvider.GetRequiredService<MailQueue>();
        foreach (var mail in await store.DueAsync(CancellationToken.None))
            await store.HandOverAsync(mail, CancellationToken.None);
    }
}
