using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Zeitplan.Core.Exchange;
using Zeitplan.Server;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Lessons;
using Zeitplan.Server.People;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

// Sentences and numbers read the same on every machine, whatever language it is set to.
CultureInfo.CurrentCulture = CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture;

var builder = WebApplication.CreateBuilder(args);
var services = builder.Services;
builder
    .Logging.ClearProviders()
    .AddJsonConsole(console => (console.IncludeScopes, console.UseUtcTimestamp) = (true, true));

// The document generator runs this program at build time, when there is no database.
var describing = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

services.AddSingleton<JournalKeeper>();
services.AddSingleton(provider => new SchoolDatabases(
    builder.Configuration,
    provider,
    provider.GetRequiredService<JournalKeeper>(),
    new FormOutlines()
));
services.AddScoped<CurrentSchool>();
services.AddScoped(provider => provider.GetRequiredService<CurrentSchool>().Database.Open());
services.AddSingleton(_ => SchoolTime.From(builder.Configuration));
services.AddScoped<SchoolClock>();
services.AddHttpContextAccessor();
services.AddSingleton<Erasures>();
services.AddSingleton<Arrangements>();
services.AddSingleton<SeenBefore>();
services.AddHostedService<ReadAhead>();
services.AddScoped<ArchiveWriter>();
services.AddScoped<ArchiveReader>();
services.AddScoped<PasswordAsked>();
services.AddScoped<LetterWriter>();
services.AddSingleton<Postman>();
services.AddHostedService(provider => provider.GetRequiredService<Postman>());
services.AddSingleton<LostPasswords>();
services.AddScoped(provider => Actor.From(provider.GetRequiredService<IHttpContextAccessor>().HttpContext!.User));

services
    .AddIdentityCore<Account>(options =>
    {
        options.User.RequireUniqueEmail = true;
        options.Password.RequiredLength = 12;
        options.Password.RequireNonAlphanumeric = false;
        options.Password.RequireUppercase = false;
        options.Password.RequireDigit = false;
        options.Password.RequiredUniqueChars = 5;
        options.SignIn.RequireConfirmedAccount = true;
        options.Stores.SchemaVersion = IdentitySchemaVersions.Version3;
    })
    .AddEntityFrameworkStores<SchoolContext>()
    .AddSignInManager()
    .AddDefaultTokenProviders()
    .AddTokenProvider<InvitationCodes>(InvitationCodes.Provider)
    .AddClaimsPrincipalFactory<StaffClaims>();
services.AddScoped<IUserConfirmation<Account>, MaySignIn>();
services.Configure<IdentityPasskeyOptions>(options =>
    (options.UserVerificationRequirement, options.ResidentKeyRequirement) = ("required", "required")
);
var secure = BehindProxy.CookiePolicy(builder.Configuration);
services
    .AddAuthentication(IdentityConstants.ApplicationScheme)
    .AddCookie(
        IdentityConstants.ApplicationScheme,
        options =>
        {
            options.Cookie.Name = "zeitplan";
            options.Cookie.HttpOnly = true;
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.Cookie.SecurePolicy = secure;
            options.ExpireTimeSpan = TimeSpan.FromHours(12);
            options.Events.OnRedirectToLogin = context => Refuse(context.Response, StatusCodes.Status401Unauthorized);
            options.Events.OnRedirectToAccessDenied = context =>
                Refuse(context.Response, StatusCodes.Status403Forbidden);
            options.Events.OnValidatePrincipal = SecurityStampValidator.ValidatePrincipalAsync;
        }
    );
services
    .AddAuthentication()
    .AddCookie(
        IdentityConstants.TwoFactorUserIdScheme,
        options =>
        {
            // Between the password and the code, and while the browser asks for a passkey.
            options.Cookie.Name = "zeitplan-step";
            options.Cookie.HttpOnly = true;
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.Cookie.SecurePolicy = secure;
            options.ExpireTimeSpan = TimeSpan.FromMinutes(5);
        }
    );
ByRank.AddPolicies(services);
WorkQueue.Add(services);
Telemetry.Add(services, builder.Configuration);
BehindProxy.Add(services, builder.Configuration);
Health.Add(services);
if (!describing)
{
    Keys.Add(services, builder.Configuration);
}

services.AddAntiforgery(options =>
{
    options.HeaderName = Session.TokenHeader;
    options.Cookie.Name = "zeitplan-token";
    options.Cookie.SameSite = SameSiteMode.Strict;
    // Where it is asked for in the open by whoever looks after the machine, it is answered in the open.
    options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
    options.Cookie.HttpOnly = true;
});
services.AddSingleton(new SignInTries(builder.Configuration.GetValue("ZEITPLAN_SIGN_INS_A_MINUTE", 20)));
services.AddSingleton<SignInStore>();
services
    .AddOptions<CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
    .Configure<SignInStore>((cookie, store) => cookie.SessionStore = store);
services.ConfigureHttpJsonOptions(options =>
{
    options.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
    options.SerializerOptions.RespectNullableAnnotations = true;
    options.SerializerOptions.RespectRequiredConstructorParameters = true;
    if (describing)
    {
        // Read the same as ours, and known to the document's generator, which cannot look into ours.
        options.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase));
    }

    foreach (var converter in LibraryJson.Converters)
    {
        options.SerializerOptions.Converters.Add(converter);
    }
});
services.AddProblemDetails(options => options.CustomizeProblemDetails = Refusals.Complete);
services.AddExceptionHandler<DatabaseAway>();
services.AddExceptionHandler<Unreadable>();
services.AddExceptionHandler<RefusedByDatabase>();
services.AddExceptionHandler<Unexpected>();
services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
services.AddOpenApi(ApiDocument.Describe);
services.AddResponseCompression(options => options.EnableForHttps = true);
builder.WebHost.ConfigureKestrel(options => options.Limits.MaxRequestBodySize = 1024 * 1024);

var app = builder.Build();
app.UseForwardedHeaders();
app.UseHsts();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseSecurityHeaders();
app.UseOnlyJson();
app.UseResponseCompression();
app.UsePrecompressedFiles("/engine", "/assets");
app.UseStaticFiles(
    new StaticFileOptions
    {
        ContentTypeProvider = new Precompressed.ContentTypes(),
        // Hashed assets never change; the page that names them is asked for each time.
        OnPrepareResponse = file =>
            file.Context.Response.Headers.CacheControl =
                file.Context.Request.Path.StartsWithSegments("/assets", StringComparison.Ordinal)
                || file.Context.Request.Path.Value!.Contains(".wasm", StringComparison.Ordinal)
                    ? "public, max-age=31536000, immutable"
                    : "no-cache",
    }
);
app.UseSchoolByHost();
app.UseRouting();
app.UseAuthentication();
app.UseAuthorization();
app.UseRateLimiter();
app.MapApi();
Health.Map(app);
app.MapFallback(Page.Serve).AllowAnonymous().ExcludeFromDescription();

if (!describing && await Start.WhyNotAsync(app) is { } reason)
{
    await Console.Error.WriteLineAsync($"Zeitplan: {reason}");
    return 1;
}

await app.RunAsync();
return 0;

static Task Refuse(HttpResponse response, int status)
{
    response.StatusCode = status;
    return Task.CompletedTask;
}
