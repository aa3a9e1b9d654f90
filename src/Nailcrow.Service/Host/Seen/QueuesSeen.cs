using System.Diagnostics.Metrics;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Host.Seen;

/// <summary>How much waits to be done. It is looked up now and then, and not whenever somebody asks: whoever asks too often asks a number.</summary>
internal sealed class QueuesSeen(Outbox outbox, IntakeLog intake, TicketLines lines, IMeterFactory meters) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(15);

    private const int MostAlerts = 10_000;

    private Seen? _seen;

    private sealed record Seen(int Errands, int Alerts, int Rebuilds);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var meter = meters.Create(Measures.Meter.Name);
        Gauge("nailcrow.outside.waiting", "{errand}", "What waits to be said to partners.", s => s.Errands);
        Gauge("nailcrow.alert.waiting", "{alert}", "Alerts that no ticket has yet.", s => s.Alerts);
        Gauge("nailcrow.rebuild.followed", "{rebuild}", "Rebuilds that are followed.", s => s.Rebuilds);
        var up = 0;
        meter.CreateObservableGauge("nailcrow.database.up", () => Volatile.Read(ref up), null, "1 while the database answers.");
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                _seen = new(
                    await outbox.WaitingAsync(stoppingToken),
                    (await intake.PendingAsync(MostAlerts, stoppingToken)).Count,
                    (await lines.WatchedAsync(stoppingToken)).Count
                );
                Volatile.Write(ref up, 1);
            }
            catch (Exception) when (!stoppingToken.IsCancellationRequested)
            {
                (_seen, up) = (null, 0); // no number is better than an old one
            }
            await Task.Delay(Every, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }

        void Gauge(string name, string unit, string description, Func<Seen, int> of) =>
            meter.CreateObservableGauge(
                name,
                () => _seen is { } seen ? [new Measurement<int>(of(seen))] : Array.Empty<Measurement<int>>(),
                unit,
                description
            );
    }
}
