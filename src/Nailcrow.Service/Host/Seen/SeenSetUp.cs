using Nailcrow.Core.People;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Nodes;
using OpenTelemetry;
using OpenTelemetry.Exporter;
using OpenTelemetry.Logs;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;

namespace Nailcrow.Service.Host.Seen;

/// <summary>Shows the service to whoever watches it from outside, by OpenTelemetry; nothing of it is loaded where nobody does.</summary>
internal static class SeenSetUp
{
    private const string Page = "/metrics";

    // Ours; and what the parts that we stand on tell of themselves.
    private static readonly string[] Meters =
    [
        "Nailcrow.*",
        "Npgsql",
        "System.Runtime",
        "Microsoft.AspNetCore.Hosting",
        "Microsoft.AspNetCore.Server.Kestrel",
    ];

    private static readonly string[] Sources = ["Nailcrow.*", "Npgsql", "System.Net.Http", "Microsoft.AspNetCore"];

    // In seconds: a flush takes one to ten thousandths, a machine up to twenty.
    private static readonly double[] Times = [0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 20];

    public static void AddSeen(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        if (settings.Seen.IsAny && !settings.Seen.Problems().Any())
            AddAll(builder, settings);
    }

    private static void AddAll(WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder.Services.AddHostedService<QueuesSeen>();
        var telemetry = builder
            .Services.AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("nailcrow", serviceInstanceId: NodeName.Own))
            .WithMetrics(metrics => AddMetrics(metrics, settings.Seen));
        if (settings.Seen.Otlp is not { } collector)
            return;
        telemetry.WithTracing(traces => traces.AddSource(Sources).AddOtlpExporter(to => To(to, collector, "traces")));
        telemetry.WithLogging(
            logs => logs.AddOtlpExporter(to => To(to, collector, "logs")),
            logs => (logs.IncludeFormattedMessage, logs.IncludeScopes) = (true, true)
        );
    }

    public static void MapSeen(this WebApplication app, ServiceSettings settings)
    {
        if (settings.Seen.Page)
            MapPage(app);
        else
            app.MapGet(
                    Page,
                    () => Refusals.NotFound("Numbers are shown here where the service was started with --Nailcrow:Seen:Page=true.")
                )
                .AllowAnonymous()
                .ExcludeFromDescription();
    }

    // Of its own: nothing of OpenTelemetry is loaded before it is called.
    private static void MapPage(WebApplication app) => app.MapPrometheusScrapingEndpoint(Page).Takes(Permission.KeepHouse);

    private static void AddMetrics(MeterProviderBuilder metrics, SeenSettings seen)
    {
        metrics
            .AddMeter(Meters)
            .AddView(instrument =>
                instrument.Meter.Name.StartsWith("Nailcrow.", StringComparison.Ordinal) && instrument.Unit == "s"
                    ? new ExplicitBucketHistogramConfiguration { Boundaries = Times }
                    : null
            );
        if (seen.Page)
            metrics.AddPrometheusExporter();
        if (seen.Otlp is { } collector)
            metrics.AddOtlpExporter(
                (to, reader) =>
                {
                    To(to, collector, "metrics");
                    reader.PeriodicExportingMetricReaderOptions.ExportIntervalMilliseconds = (int)(seen.EverySeconds * 1000);
                }
            );
    }

    /// <summary>OTLP over HTTP has a path for each kind (opentelemetry.io/docs/specs/otlp, "OTLP/HTTP Request").</summary>
    private static void To(OtlpExporterOptions to, string collector, string kind) =>
        (to.Protocol, to.Endpoint) = (OtlpExportProtocol.HttpProtobuf, new Uri($"{collector.TrimEnd('/')}/v1/{kind}"));
}
