using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Nailcrow.Store;
using Nailcrow.Store.Nodes;

namespace Nailcrow.Service.Host.Seen;

/// <summary>
/// Tells who shares calls between nodes whether to send them here. That the process is there (<c>/health/live</c>) is another question: a
/// node whose database is away is not started anew for it.
/// </summary>
internal static class Readiness
{
    private const string Database = "database-away",
        GoingDown = "going-down",
        Clock = "clock-off",
        Ready = "ready";

    /// <summary>What is answered.</summary>
    /// <param name="State">ready, database-away, going-down, clock-off.</param>
    private sealed record Answer(string State, string Says);

    public static void AddReadiness(this IServiceCollection services, ServiceSettings settings)
    {
        services.AddHealthChecks().AddCheck<IsGoingDown>(GoingDown).AddCheck<DatabaseAnswers>(Database).AddCheck<ClockIsRight>(Clock);
        services.AddHostedService(s => new GoesDown(TimeSpan.FromSeconds(settings.Seen.GoingDownSeconds)));
    }

    public static void MapReadiness(this WebApplication app)
    {
        app.MapHealthChecks(
                "/health/live",
                new() { Predicate = _ => false, ResponseWriter = (http, _) => TellAsync(http, new("live", "The process is there.")) }
            )
            .AllowAnonymous();
        app.MapHealthChecks("/health/ready", new() { ResponseWriter = (http, report) => TellAsync(http, Of(report)) }).AllowAnonymous();
    }

    private static Answer Of(HealthReport report) =>
        report.Entries.Where(e => e.Value.Status != HealthStatus.Healthy).OrderByDescending(e => e.Key == GoingDown).FirstOrDefault() switch
        {
            { Key: null } => new(Ready, "It takes calls."),
            var no => new(no.Key, no.Value.Description ?? ""),
        };

    private static Task TellAsync(HttpContext http, Answer answer) => http.Response.WriteAsJsonAsync(answer);

    private sealed class IsGoingDown(IHostApplicationLifetime lifetime) : IHealthCheck
    {
        public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
            Task.FromResult(
                lifetime.ApplicationStopping.IsCancellationRequested
                    ? HealthCheckResult.Unhealthy("This node is going down; others go on.")
                    : HealthCheckResult.Healthy()
            );
    }

    private sealed class DatabaseAnswers(Database database) : IHealthCheck
    {
        // Whoever shares calls asks every second or so, and has to hear of a line that is dead, too.
        private static readonly TimeSpan AtMost = TimeSpan.FromSeconds(3);

        public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
            await AnswersAsync(cancellationToken)
                ? HealthCheckResult.Healthy()
                : HealthCheckResult.Unhealthy("The database does not answer; the node goes on by itself once it does.");

        private async Task<bool> AnswersAsync(CancellationToken ct)
        {
            try
            {
                return await database.AnswersAsync(ct).WaitAsync(AtMost, ct);
            }
            catch (TimeoutException)
            {
                return false;
            }
        }
    }

    /// <param name="clock">None where one process has the record to itself.</param>
    private sealed class ClockIsRight(NodeClock? clock = null) : IHealthCheck
    {
        public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
            Task.FromResult(
                clock is { IsOff: true }
                    ? HealthCheckResult.Unhealthy($"{clock.Says} It takes calls again once that is set right.")
                    : HealthCheckResult.Healthy()
            );
    }

    /// <summary>Serves on for a moment after it was told to stop, so that whoever shares calls hears of it before one fails.</summary>
    private sealed class GoesDown(TimeSpan moment) : IHostedLifecycleService
    {
        public Task StoppingAsync(CancellationToken cancellationToken) => Task.Delay(moment, cancellationToken);

        public Task StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;

        public Task StartingAsync(CancellationToken cancellationToken) => Task.CompletedTask;

        public Task StartedAsync(CancellationToken cancellationToken) => Task.CompletedTask;

        public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

        public Task StoppedAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    }
}
