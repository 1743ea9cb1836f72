using System.Reflection;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Data.Sqlite;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Core.Webhooks;
using PorchLight.Server.AcrossAreas;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Clients;
using PorchLight.Server.Demo;
using PorchLight.Server.Fields;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Library;
using PorchLight.Server.Lists;
using PorchLight.Server.Meetings;
using PorchLight.Server.Messages;
using PorchLight.Server.Ready;
using PorchLight.Server.Records;
using PorchLight.Server.StandIns;
using PorchLight.Server.StandIns.SampleSite;
using PorchLight.Server.Storage;
using PorchLight.Server.Webhooks;
using PorchLight.Server.Work;

var builder = WebApplication.CreateBuilder(args);
builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = 4 * 1024 * 1024);
builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
builder.Services.AddProblemDetails(Problems.GiveSentences);

// When all others have added their ways to describe types: only equal options share what was found out about them.
builder.Services.PostConfigure<JsonOptions>(json => Json.Configure(json.SerializerOptions));
builder.Services.AddExceptionHandler<ProblemWriter>();
builder.Services.AddContract();
builder.Services.AddStorage(builder.Configuration);
builder.Services.AddUserAccess();
builder.Services.AddSignalR();
builder.Services.AddSingleton<HubConnections>();
builder.Services.AddScoped<ISignedOut, SignedOut>();
builder.Services.AddHsts(hsts => hsts.MaxAge = TimeSpan.FromDays(365));
builder.Services.AddRateLimits(builder.Configuration);
builder.Services.TrustProxies(builder.Configuration);

builder.Services.AddSingleton(MachineClock.Instance);
builder.Services.AddSingleton<BusinessClock>();
builder.Services.AddSingleton<PublicAddress>();
builder.Services.AddSingleton<StorageQuota>();
builder.Services.AddSingleton<Quotas>();
builder.Services.AddScoped<EventLog>();
builder.Services.AddScoped<RunEngine>();
builder.Services.AddScoped<RunWork>();
builder.Services.AddScoped<RunFactsLoader>();
builder.Services.AddScoped<FollowThroughPartsLoader>();
builder.Services.AddScoped<StepRunner>();
builder.Services.AddScoped<IEventReaction, Promises>();
builder
    .Services.AddSingleton<DerivedColumns>()
    .AddSingleton<IDerivedColumns, InquiryListColumns>()
    .AddSingleton<IDerivedColumns, RunDates>();
builder.Services.AddScoped<IEventReaction>(services => services.GetRequiredService<RunEngine>());
builder.Services.AddScoped<IUnfinishedFormReaction>(services => services.GetRequiredService<RunEngine>());
builder.Services.AddScoped<TimedStarts>();
builder.Services.AddScoped<UnfinishedFormReader>();
builder.Services.AddScoped<Intake>();
builder.Services.AddScoped<SubmissionChecker>();
builder.Services.AddScoped<InquiryRecords>();
builder.Services.AddScoped<RecordWriter>();
builder.Services.AddScoped<ValueEntry>();
builder.Services.AddScoped<ProjectStages>();
builder.Services.AddScoped<InquiryList>().AddScoped<ClientList>().AddScoped<FormList>().AddScoped<FileList>();
builder.Services.AddScoped<LibraryMessageList>().AddScoped<WebhookCallList>().AddScoped<PracticeMailList>();
builder.Services.AddScoped<DifferenceSettler>();
builder.Services.AddScoped<IListsInUse, ListsInUse>();
builder.Services.AddScoped<AlikeClients>();
builder.Services.AddScoped<ClientSearch>();
builder
    .Services.AddScoped<IClientPart, ClientInquiries>()
    .AddScoped<IClientPart, ClientRecords>()
    .AddScoped<IClientPart, ClientMeetings>()
    .AddScoped<IClientPart, ClientMessages>()
    .AddScoped<IClientPart, ClientWebhookCalls>()
    .AddScoped<IClientPart, ClientRuns>()
    .AddScoped<IClientPart, ClientImports>()
    .AddScoped<IClientPart, ClientListViews>()
    .AddScoped<IClientPart>(services => services.GetRequiredService<ClientSearch>());
builder.Services.AddScoped<ClientMerger>();
builder.Services.AddSingleton<ImportTables>();
builder.Services.AddScoped<ClientEraser>();
builder.Services.AddScoped<ClientFields>().AddScoped<ClientsToSave>().AddScoped<ClientsCsv>();
builder.Services.AddSingleton<FieldCatalogues>();
builder.Services.AddScoped<AnswerContextLoader>();
builder.Services.AddScoped<FormAccess>();
builder.Services.AddScoped<UnfinishedForms>();
builder.Services.AddScoped<FormPageLoader>();

// Only the page of a form is compressed as it is written: it holds nothing that a stranger may not know.
builder.Services.AddResponseCompression(options => (options.EnableForHttps, options.MimeTypes) = (true, ["text/html"]));
builder.Services.AddSingleton<PreviewTickets>();
builder.Services.AddSingleton<WriteDownTickets>();
builder.Services.AddHttpContextAccessor();
builder.Services.AddScoped<SpamCheck>();
builder.Services.AddScoped<Notifications>();
builder.Services.AddSingleton<FileStore>();
builder.Services.AddScoped<MailQueue>();
builder.Services.AddSingleton<SmtpCarrier>();
builder.Services.AddScoped<WebhookQueue>();
builder.Services.AddSingleton<WebhookCarrier>();
builder.Services.AddSingleton<CallsOnTheLine>();
builder.Services.AddScoped<IEventReaction, Watching>();
builder.Services.AddScoped<PersonalMail>();
builder.Services.AddSingleton<TakeBackTime>();
builder.Services.AddScoped<ProgramMail>();
builder.Services.AddScoped<IFileUse, FilesInMessages>();
builder.Services.AddScoped<MailIntake>();
builder.Services.AddScoped<MeetingSlots>().AddScoped<MeetingMail>().AddScoped<MeetingBooking>().AddScoped<MeetingPageLoader>();
builder.Services.AddSingleton<OutsideCalendarReader>().AddScoped<PracticeCalendars>();
builder.Services.AddScoped<IPracticeCalendars>(services => services.GetRequiredService<PracticeCalendars>());
builder.Services.AddScoped<OutsideCalendars>().AddScoped<OutsideCalendarWork>();
builder.Services.AddScoped<BookingLinks>().AddScoped<MeetingChanges>();
builder.Services.AddScoped<DemoBusiness>();
builder.Services.AddScoped<DemoHistoryPlayer>();
builder.Services.AddScoped<DemoOddInquiries>();
builder.Services.AddSingleton<FirstRunKey>();
builder.Services.AddScoped<DueItems>();
builder
    .Services.AddDueWork<OpenAgainWork>()
    .AddDueWork<StartsAfterLeaving>()
    .AddDueWork<StartsOnDays>()
    .AddDueWork<ParkedWork>()
    .AddDueWork<SendKeySweep>()
    .AddDueWork<EndedSessionSweep>()
    .AddDueWork<LookedAtImportSweep>()
    .AddDueWork<CarriedMailSweep>()
    .AddDueWork<TakenCallSweep>()
    .AddDueWork<UnfinishedFormSweep>()
    .AddDueWork<FileSweep>()
    .AddDueWork<RetentionSweep>()
    .AddDueWork<SearchWork>()
    .AddDueWork<ClientImporter>()
    .AddDueWork<RunsWork>()
    .AddDueWork<NotificationWork>()
    .AddDueWork<NoteInUse>()
    .AddDueWork<MailWork>(DueLane.Mail)
    .AddDueWork<WebhookWork>(DueLane.Webhooks)
    .AddDueWork<OutsideCalendarWork>(DueLane.Calendars)
    .AddDueWork<MailboxWork>(DueLane.Mailbox);
builder.Services.AddSingleton<DueWork>();
builder.Services.AddHostedService<WorkLoop>();
builder.Services.AddSingleton<ImapReader>();
builder.Services.AddSingleton<Mailbox>();
builder.Services.AddSingleton<SampleSiteHost>();
builder.Services.AddHostedService(services => services.GetRequiredService<SampleSiteHost>());

var app = builder.Build();
if (await Commands.RunAsync(app, args) is { } exitCode)
    return exitCode;

app.UseForwardedHeaders();
app.UseRequestLog();
app.UseKnownHosts();
app.UseHsts();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseWebFiles();
app.UseOwnOriginsOnly("/changes");
app.UseRouting();
app.UseRateLimiter();
app.UseAuthentication();
app.UseAuthorization();
app.UseAntiforgeryGate();
AnswerAreas.Tell(app, "/api");

var api = app.MapGroup("/api");
api.MapSignIn();
api.MapToday();
api.MapFirstRun();
api.MapJoin();
api.MapSettings();
api.MapMailSettings();
api.MapMailboxSettings();
api.MapBackup();
api.MapPeople();
api.MapMail();
api.MapFormList();
api.MapList<FormList, FormRow, Id<Form>, FormQuery, FormRow>("/forms", "Forms", Access.Member);
api.MapReadyForms();
api.MapForms();
api.MapFormContent();
api.MapFormSettings();
api.MapScreening();
api.MapWorkbench();
api.MapWorkedOutValues();
api.MapSorting();
api.MapVersions();
api.MapPersonalLinks();
api.MapFiles();
api.MapList<FileList, StoredFile, Id<StoredFile>, FileQuery, FileEndpoints.OwnFileView>("/files", "Files", Access.Member);
api.MapLookUpLists();
api.MapAnswersCsv();
api.MapInquiries();
api.MapInquiryActions();
api.MapConversations();
api.MapInquiryStages();
api.MapInquiriesAside();
api.MapWritingDown();
api.MapSources();
api.MapList<InquiryList, Inquiry, Id<Inquiry>, InquiryQuery, InquiryRow>("/inquiries", "Inquiries", Access.Member);
api.MapQuickReplies();
api.MapJump();
api.MapUnfinishedFormList();
api.MapFits();
api.MapClients();
api.MapList<ClientList, Client, Id<Client>, ClientQuery, ClientRow>("/clients", "Clients", Access.Member);
api.MapClientNames();
api.MapClientsVCard();
api.MapClientEdits();
api.MapProjects();
api.MapTasks();
api.MapArrangements();
api.MapDifferences();
api.MapClientMerges();
api.MapClientErasing();
api.MapClientSaving();
api.MapClientImports();
api.MapFields();
api.MapLibraryMessages();
api.MapList<LibraryMessageList, ListedMessage, Id<LibraryMessage>, LibraryMessageQuery, LibraryMessageEndpoints.LibraryRow>(
    "/library/messages",
    "Library",
    Access.Member
);
api.MapBuiltInMessages();
api.MapSignatures();
api.MapFollowThroughs();
api.MapFollowThroughDrafts();
api.MapFollowThroughPeople();
api.MapPlanTables();
api.MapRehearsals();
api.MapRuns();
api.MapNods();
api.MapMeetingTypes();
api.MapUserHours();
api.MapOutsideCalendars();
api.MapCalendarFeed();
api.MapPracticeCalendar();
api.MapCalendar();
api.MapMeetings();
api.MapWebhooks();
api.MapList<WebhookCallList, WebhookCall, Id<WebhookCall>, WebhookCallQuery, CallView>("/webhooks/calls", "Webhooks", Access.Owner);
api.MapPractice();
api.MapList<PracticeMailList, PracticeMessage, Id<PracticeMessage>, PracticeMailQuery, MailRow>(
    "/practice/mail",
    "Practice",
    Access.Member
);
api.MapFallback(() => Problems.NotFound("There is nothing at this address.")).For(Access.Member).ExcludeFromDescription();
app.MapPublic();
FormSchema.Map(app);
app.MapBooking();
app.MapPublicCalendarFeed();
app.MapUploads();
app.MapFormAccess();
app.MapUnfinishedForms();
app.MapPlain();
app.MapShownFiles();
app.MapHub<ChangeHub>("/changes").For(Access.Member);
app.MapContract();
app.MapHealth();
app.MapLogo();
app.MapUnsubscribe();
app.MapPublicPage();
app.MapMeetingPage();
app.MapPages();

// The tool that writes the contract runs this program up to here; it must leave no traces.
if (Assembly.GetEntryAssembly()?.GetName().Name != "GetDocument.Insider")
{
    EndpointJson.FindOutMeanwhile(app);
    try
    {
        await StorageSetup.OpenAsync(app.Services);
    }
    catch (Exception refusal) when (refusal is InUseException or UnknownReleaseException)
    {
        await Console.Error.WriteLineAsync(refusal.Message);
        return 1;
    }
    catch (Exception failure) when (failure is IOException or UnauthorizedAccessException or SqliteException)
    {
        await Console.Error.WriteLineAsync(
            $"Porch Light cannot use its data folder: {failure.Message} Give the user it runs as the right to write there, or name another folder."
        );
        return 1;
    }

    await DemoBusiness.SeedAsync(app.Services);
    await FirstRunKey.WriteAsync(app.Services);
}

await app.RunAsync();
return 0;
