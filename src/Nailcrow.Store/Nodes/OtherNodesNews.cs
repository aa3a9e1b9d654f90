using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Nailcrow.Store.Tickets;
using Npgsql;

namespace Nailcrow.Store.Nodes;

/// <summary>How the server is reached that nodes tell each other by.</summary>
internal sealed record NewsLine(string Server);

/// <summary>
/// Hears that another node has written, and wakes who waits here. The word only wakes: what was written is read from the journal, and
/// where no word comes it is looked all the same.
/// </summary>
internal sealed class OtherNodesNews(NewsLine line, JournalNews news, TimeProvider time, ILogger<OtherNodesNews> log) : BackgroundService
{
    public const string Channel = "nailcrow_news";

    // A word may be lost with the connection that carries it, and a connection may be dead without a word.
    private static readonly TimeSpan SilentAtMost = TimeSpan.FromSeconds(5);
    private static readonly TimeSpan BeforeTryingAgain = TimeSpan.FromSeconds(1);

    private bool _hears = true;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                await ListenAsync(stoppingToken);
            }
            catch (Exception e) when (e is NpgsqlException or IOException)
            {
                if (_hears) // said once, however long it lasts
                    log.LogWarning("What other nodes write is not heard of at once: {Reason}", e.Message);
                _hears = false;
                await Task.Delay(BeforeTryingAgain, time, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
    }

    private async Task ListenAsync(CancellationToken ct)
    {
        // A connection of its own, which no pool hands to anybody else.
        await using var connection = new NpgsqlConnection($"{line.Server};Pooling=false");
        await connection.OpenAsync(ct);
        connection.Notification += (_, said) => Hear(said.Payload);
        await DoAsync(connection, $"LISTEN {Channel}", ct);
        _hears = true;
        HearAll(); // what was written while nobody listened
        while (true)
            if (!await connection.WaitAsync(SilentAtMost, ct))
            {
                await DoAsync(connection, "SELECT 1", ct);
                HearAll();
            }
    }

    private void Hear(string said)
    {
        if (said == nameof(Word.Alerts))
            news.RingAlerts();
        else
            news.Ring(errands: said == nameof(Word.Errands));
    }

    private void HearAll()
    {
        news.Ring(errands: true);
        news.RingAlerts();
    }

    private static async Task DoAsync(NpgsqlConnection connection, string sql, CancellationToken ct)
    {
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync(ct);
    }
}
