using System.Reflection;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Demo;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.StandIns;
using PorchLight.Server.StandIns.Mail;
using PorchLight.Server.StandIns.SampleSite;
using PorchLight.Server.Work;

var builder = WebApplication.CreateBuilder(args);
builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = 4 * 1024 * 1024);
builder.Services.ConfigureHttpJsonOptions(json => Json.Configure(json.SerializerOptions));
builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
builder.Services.AddProblemDetails(Problems.GiveSentences);
builder.Services.AddExceptionHandler<ProblemWriter>();
builder.Services.AddContract();
builder.Services.AddStorage(builder.Configuration);
builder.Services.AddSeats();
builder.Services.AddSignalR();
builder.Services.AddPublicLimits(builder.Configuration);

builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton<BusinessClock>();
builder.Services.AddScoped<EventLog>();
builder.Services.AddScoped<RunDesk>();
builder.Services.AddScoped<Intake>();
builder.Services.AddScoped<MailRoom>();
builder.Services.AddScoped<IMailCarrier, PracticeCarrier>();
builder.Services.AddScoped<DemoBusiness>();
builder.Services.AddSingleton<DueWork>();
builder.Services.AddHostedService<WorkLoop>();
builder.Services.AddSingleton<SampleSiteHost>();
builder.Services.AddHostedService(services => services.GetRequiredService<SampleSiteHost>());

var app = builder.Build();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseWebFiles();
app.UseRouting();
app.UseRateLimiter();
app.UseAuthentication();
app.UseAuthorization();

var api = app.MapGroup("/api").RequireAuthorization().AddEndpointFilter<AntiforgeryFilter>();
api.MapSignIn();
api.MapToday();
api.MapForms();
api.MapInquiries();
api.MapClients();
api.MapNods();
api.MapPractice();
api.MapFallback(() => Problems.NotFound("There is nothing at this address.")).ExcludeFromDescription();
app.MapPublic();
app.MapHub<NewsHub>("/news");
app.MapOpenApi();
app.MapGet("/health", async (PorchDb db, CancellationToken stop) => await db.Database.CanConnectAsync(stop)
    ? Results.Ok(new { status = "ready" })
    : Results.StatusCode(StatusCodes.Status503ServiceUnavailable)).ExcludeFromDescription();
app.MapPages();

// The tool that writes the contract runs this program up to here; it must leave no traces.
if (Assembly.GetEntryAssembly()?.GetName().Name != "GetDocument.Insider")
{
    await Storage.OpenAsync(app.Services);
    await DemoBusiness.SeedAsync(app.Services);
}

await app.RunAsync();
