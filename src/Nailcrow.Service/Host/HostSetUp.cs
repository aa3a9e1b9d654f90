using System.IO.Compression;
using System.Reflection;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Microsoft.Extensions.Options;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Service.Host.Resting;
using Nailcrow.Service.Host.Seen;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Service.Returns.Outside;
using Nailcrow.Store;
using Nailcrow.Store.OnFile;
using Serilog;
using Serilog.Events;
using Serilog.Formatting.Compact;

namespace Nailcrow.Service.Host;

/// <summary>Logs, errors, storage, health and the interface's description: what every room stands on.</summary>
internal static class HostSetUp
{
    // On every start on a development machine the same, and not one that other services use by default.
    private const string DefaultUrl = "http://127.0.0.1:7420";

    // A snapshot of 106 bays has 40 kB; a reference file of a thousand appliances under 1 MB.
    private const long MostBodyBytes = 8 * 1024 * 1024;

    // Whoever stops a service waits five seconds before being rude; what takes longer is taken up at the next start.
    private static readonly TimeSpan LastsAtMost = TimeSpan.FromSeconds(3);

    // An upgrade is waited for however long it takes, and nobody is to wonder.
    private static readonly TimeSpan SaysThatItWaits = TimeSpan.FromSeconds(10);

    public static ServiceSettings AddHost(this WebApplicationBuilder builder)
    {
        var settings = ServiceSettings.Of(builder.Configuration);
        if (settings.Problems().ToList() is { Count: > 0 } problems)
            throw new OptionsValidationException("Nailcrow", typeof(ServiceSettings), problems);
        if (string.IsNullOrEmpty(builder.Configuration["urls"]))
            builder.WebHost.UseUrls(DefaultUrl);
        builder.WebHost.ConfigureKestrel(kestrel => (kestrel.Limits.MaxRequestBodySize, kestrel.AddServerHeader) = (MostBodyBytes, false));
        if (settings.Seen.Otlp is not null)
            builder.Logging.ClearProviders(); // Serilog's console, and beside it what is sent to the collector
        builder.Services.AddSerilog(
            log =>
                log.MinimumLevel.Is(LogEventLevel.Information)
                    .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
                    .MinimumLevel.Override("System", LogEventLevel.Warning)
                    .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error) // the key file is guarded by its folder's rights
                    // Whoever asked is thrown what failed and tells it; a first start asks for a table that is not there yet.
                    .MinimumLevel.Override("Microsoft.EntityFrameworkCore.Database.Command", LogEventLevel.Fatal)
                    .MinimumLevel.Override("Polly", LogEventLevel.Error)
                    .MinimumLevel.Override("Quartz", LogEventLevel.Warning)
                    .Enrich.FromLogContext()
                    .WriteTo.Console(new CompactJsonFormatter()),
            writeToProviders: settings.Seen.Otlp is not null
        );
        builder.Services.TryAddSingleton(TimeProvider.System);
        builder.Services.AddNailcrowStore(settings.Data, settings.Database, TimeSpan.FromSeconds(settings.ClockMayBeOffSeconds));
        builder.Services.AddKeys(settings);
        builder.Services.ConfigureHttpJsonOptions(json => WireJson.Configure(json.SerializerOptions));
        builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        // the console's files only: they hold no secrets
        builder.Services.AddResponseCompression(compression => compression.MimeTypes = ["text/javascript", "text/css"]);
        builder.Services.Configure<GzipCompressionProviderOptions>(gzip => gzip.Level = CompressionLevel.Optimal);
        builder.Services.Configure<BrotliCompressionProviderOptions>(brotli => brotli.Level = CompressionLevel.Optimal);
        builder.Services.AddProblemDetails();
        builder.Services.AddExceptionHandler<BadRequestSentences>();
        builder.Services.AddExceptionHandler<StorageTroubles>();
        builder.Services.Configure<HostOptions>(host =>
            // logged; what is done beside must not take the answers down with it
            (host.ShutdownTimeout, host.BackgroundServiceExceptionBehavior) = (
                LastsAtMost + TimeSpan.FromSeconds(settings.Seen.GoingDownSeconds),
                BackgroundServiceExceptionBehavior.Ignore
            )
        );
        builder.AddWire(settings);
        builder.Services.AddSingleton<ISecretKeeper, ProtectedSecrets>();
        builder.Services.AddOpenApi(api => api.AddNailcrowDescription());
        builder.Services.AddReadiness(settings);
        builder.Services.AddHostedService<AtRest>();
        builder.Services.AddSingleton<Unanswered>();
        return settings;
    }

    public static void UseHost(this WebApplication app)
    {
        app.UseWire();
        app.UseAnswerDate();
        app.UseExceptionHandler();
        app.UseStatusCodePages(BadRequestSentences.ForBareStatus);
        app.UseWholeTexts();
        app.UseResponseCompression();
        app.UseSecurityHeaders();
        app.UseConsoleFiles();
        app.UseNoStore();
        app.UseOwnPagesOnly();
        app.UseAuthentication();
        app.UseMiddleware<People.StayingIn.StillIn>();
        app.UseAuthorization();
    }

    public static void MapHost(this WebApplication app)
    {
        app.MapOpenApi("/api/openapi.json").AllowAnonymous();
        app.MapReadiness();
        app.Map("/api/{**rest}", (HttpContext http, Unanswered unanswered) => unanswered.Of(http))
            .AllowAnonymous()
            .ExcludeFromDescription();
        app.MapConsolePages();
    }

    /// <summary>Has the code compiled that listening waits for: by which calls are bound to what answers them, and what goes on beside them.</summary>
    public static void MakeReady(this WebApplication app)
    {
        foreach (var calls in ((IEndpointRouteBuilder)app).DataSources)
            _ = calls.Endpoints.Count;
        _ = app.Services.GetServices<IHostedService>().Count();
    }

    /// <summary>Brings the database up to date and says in plain words what would keep people out.</summary>
    public static async Task PrepareAsync(this WebApplication app, ServiceSettings settings)
    {
        if (Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider")
            return;
        MayStart(app, settings);
        app.Services.GetService<FileInUse>(); // a server has none
        var database = app.Services.GetRequiredService<Database>();
        var migrating = database.MigrateAsync(CancellationToken.None);
        if (await Task.WhenAny(migrating, Task.Delay(SaysThatItWaits)) != migrating)
            Log.ForContext(typeof(HostSetUp))
                .Information(
                    "The record is being brought to this release's form, by this node or by another that it waits for; a large one takes minutes"
                );
        var missing = await migrating;
        if (missing.Count > 0)
            Log.ForContext(typeof(HostSetUp))
                .Warning(
                    "Guards of the journal had been taken away and were put back: {Guards}. Somebody was at the database; "
                        + "'nailcrow admin verify --seal FILE' tells whether anything was changed",
                    missing
                );
        await FirstPersonAsync(app, settings, database);
        Started(app, settings);
    }

    /// <exception cref="OptionsValidationException">It was told something that it cannot be meant to do.</exception>
    private static void MayStart(WebApplication app, ServiceSettings settings)
    {
        if (
            WireSetUp.Problem(app.Configuration["urls"] ?? DefaultUrl, app.Configuration.GetSection("Kestrel:Endpoints"), settings) is
            { } openly
        )
            throw new OptionsValidationException("Nailcrow", typeof(ServiceSettings), [openly]);
        if (settings.Database is not null && File.Exists(settings.Data))
            Log.ForContext(typeof(HostSetUp))
                .Warning(
                    "Another record lies in {File}, and is not read: Nailcrow:Database says that this one is on {Place}",
                    Path.GetFullPath(settings.Data),
                    settings.Place()
                );
        if (settings is { Database: not null, KeysCertificate: null })
            Log.ForContext(typeof(HostSetUp))
                .Warning(
                    "Keys lie in the database in clear: whoever reads it reads every secret, and can sign seals. Give all nodes a certificate of "
                        + "their own for them (Nailcrow:KeysCertificate:Certificate and :Key)"
                );
    }

    private static async Task FirstPersonAsync(WebApplication app, ServiceSettings settings, Database database)
    {
        var first = app.Services.GetRequiredService<People.FirstPerson>();
        await database.OneByOneAsync(
            () =>
            {
                // With the first that is protected, the first key is made; two nodes' would not know each other's cookies at first.
                app.Services.GetRequiredService<ISecretKeeper>().Protect("");
                return settings.FirstAdmin is null ? Task.CompletedTask : first.MakeAsync(settings.FirstAdmin, CancellationToken.None);
            },
            CancellationToken.None
        );
        if (settings.FirstAdmin is null) // only a word of advice, which nobody has to wait for
            _ = AdviseAsync();

        async Task AdviseAsync()
        {
            await app.Lifetime.CalmAsync(app.Lifetime.ApplicationStopping);
            await first.MakeAsync(null, app.Lifetime.ApplicationStopping);
        }
    }

    private static void Started(WebApplication app, ServiceSettings settings)
    {
        app.Lifetime.ApplicationStarted.Register(() =>
        {
            int[] own = [.. app.Urls.Select(u => new Uri(u.Replace("*", "localhost").Replace("+", "localhost")).Port)];
            app.Services.GetRequiredService<Nailcrow.Appliances.AllowedAddresses>().OwnPorts(own);
            app.Services.GetRequiredService<OutsideAddresses>().Allowed.OwnPorts(own);
        });
        _ = WireJson.DescribeLargestAsync(app.Lifetime, app.Services.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions);
        app.Lifetime.ApplicationStarted.Register(() =>
            Log.ForContext(typeof(HostSetUp)).Information("Nailcrow listens at {Urls}; data in {Data}", app.Urls, settings.Place())
        );
    }
}
