using Nailcrow.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Service.Tickets;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Intake;

/// <summary>Takes what is pending in the log to its tickets. What it did not come to is still pending after a crash.</summary>
internal sealed class Joiner(
    IntakeLog log,
    JournalNews news,
    ILeases leases,
    ReferenceBook book,
    Drives drives,
    TicketLines lines,
    TicketJournal journal,
    OneAtATime doors,
    IApplianceLink link,
    TimeProvider time,
    IHostApplicationLifetime life,
    ILogger<Joiner> complaints
) : BackgroundService
{
    private const int MostAtOnce = 2_000;

    // Alerts of one fault come within moments of each other; taken together they make one ticket, whichever is first.
    private static readonly TimeSpan Gathering = TimeSpan.FromMilliseconds(200);

    private static readonly TimeSpan LookAgainAfter = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await life.CalmAsync(stoppingToken);
        var (alert, taken) = (news.NextAlert, leases.NextTaken);
        while (!stoppingToken.IsCancellationRequested)
            try
            {
                await Task.WhenAny(alert, taken, Task.Delay(LookAgainAfter, stoppingToken));
                await Task.Delay(Gathering, time, stoppingToken);
                (alert, taken) = (news.NextAlert, leases.NextTaken); // before looking: what comes meanwhile is looked at next
                await leases.DoAsync(SharedWork.JoiningAlerts, JoinAllAsync, stoppingToken);
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                complaints.LogError(e, "Alerts could not be taken to their tickets; the next round tries again");
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (OperationCanceledException e)
            {
                complaints.LogError(e, "Taking alerts to their tickets was broken off; the next round tries again");
            }
    }

    private async Task JoinAllAsync(Lease lease, CancellationToken ct)
    {
        while (await JoinSomeAsync(lease, ct) == MostAtOnce)
            continue;
    }

    /// <returns>How many were taken.</returns>
    private async Task<int> JoinSomeAsync(Lease lease, CancellationToken ct)
    {
        var pending = await log.PendingAsync(MostAtOnce, ct);
        if (pending.Where(i => i.Alert is null || i.Asset is null).Select(i => i.Id).ToList() is { Count: > 0 } unreadable)
            await log.SettleAsync(unreadable, IntakeOutcome.Unmatched, null, ct);
        var assets = pending.Where(i => i.Alert is not null).Select(i => i.Asset).OfType<string>().Distinct().ToList();
        if (assets.Count == 0)
            return 0;
        var known = await drives.LatestAsync(assets, ct);
        await Parallel.ForEachAsync(
            pending.Where(i => i is { Asset: not null, Alert: not null }).GroupBy(i => i.Asset!),
            new ParallelOptions { MaxDegreeOfParallelism = 64, CancellationToken = ct },
            async (ofOne, token) =>
            {
                try
                {
                    await doors.OfAsync(
                        ofOne.Key,
                        () => JoinAsync(ofOne.Key, [.. ofOne], known.GetValueOrDefault(ofOne.Key), lease, token),
                        token
                    );
                }
                catch (Exception e) when (e is not OperationCanceledException && StorageTroubles.Sentence(e) is null)
                {
                    complaints.LogError(e, "Alerts of {Asset} could not be joined together; each is tried alone", ofOne.Key);
                    foreach (var one in ofOne)
                        await AloneAsync(one, known.GetValueOrDefault(ofOne.Key), lease, token);
                }
            }
        );
        return pending.Count;
    }

    /// <summary>One that cannot be joined, whatever it is, waits for a person, and stops no other.</summary>
    private async Task AloneAsync(IntakeItem one, Snapshot? known, Lease lease, CancellationToken ct)
    {
        try
        {
            await doors.OfAsync(one.Asset ?? "", () => JoinAsync(one.Asset ?? "", [one], known, lease, ct), ct);
        }
        catch (Exception e) when (e is not OperationCanceledException && StorageTroubles.Sentence(e) is null)
        {
            complaints.LogError(e, "A message of {Asset} could not be joined; it waits under Intake for a person", one.Asset);
            await log.SettleAsync([one.Id], IntakeOutcome.Unmatched, null, ct);
        }
    }

    /// <summary>Again where somebody opened a ticket of the machine meanwhile, here or on another node: what is left may be about that.</summary>
    /// <returns>How many tickets heard of it.</returns>
    private async Task<int> JoinAsync(string asset, IReadOnlyList<IntakeItem> items, Snapshot? known, Lease lease, CancellationToken ct)
    {
        for (var told = 0; ; )
        {
            var (heard, left) = await JoinOnceAsync(asset, items, known, lease, ct);
            told += heard;
            if (left.Count == 0)
                return told;
            items = left;
        }
    }

    private async Task<(int Told, IReadOnlyList<IntakeItem> Left)> JoinOnceAsync(
        string asset,
        IReadOnlyList<IntakeItem> items,
        Snapshot? known,
        Lease lease,
        CancellationToken ct
    )
    {
        if (await book.FindAsync(asset, ct) is not { } appliance)
        {
            await log.SettleAsync([.. items.Select(i => i.Id)], IntakeOutcome.UnknownSender, null, ct);
            return (0, []);
        }
        var newest = await lines.NewestAtAsync(asset, ct); // before its tickets are looked at: of what comes after that we do not know
        var quietSince = time.GetUtcNow() - Flapping.QuietAfterEnd;
        var here = await lines.AtAsync([asset], quietSince, ct);
        // A machine that can be asked says itself which bay its words are about, and how dangerous that is now.
        var looked =
            appliance.Appliance.Address is not null && await link.LookAsync(appliance.Appliance, ct) is Parsed<MachineLook>.Ok(var look)
                ? look.Snapshot
                : null;
        known = looked ?? known;
        // Where there is one array, what nobody placed is of that one.
        var only = appliance.Appliance.Arrays is [var one] ? one.Name : null;
        var alerts = items
            .Select(i => i.Alert)
            .OfType<Alert>()
            .Select(a => a.Placed(known))
            .Select(a => a with { Array = a.Array ?? only })
            .ToList();
        // One that ended a moment ago still answers for its drive: what a machine repeats then is no new fault.
        var open = here.Where(l => !l.Ended).ToList();
        var lately = open.Count > 0 ? open : await EndedSinceAsync(quietSince, here, ct);
        var faults = Core.Intake.Joining.Of(
            [.. lately.Select(l => l.Line)],
            lately.ToDictionary(l => l.Line.Number, l => l.Array ?? only),
            alerts
        );
        var handsIn = faults.Any(f => f.Ticket is null) ? await WithHandsInAsync(open.Select(l => l.Line.Number), ct) : null;
        for (var i = 0; i < faults.Count; i++)
        {
            var fault = faults[i];
            if (fault.Ticket is { } joined && looked is not null)
                await SeenNowAsync(joined, looked, lease, ct);
            var opens = fault.Ticket is null && handsIn is null;
            if (
                (opens ? await OpenAsync(appliance, fault.Alerts[0], known, looked, newest, lease, ct) : fault.Ticket ?? handsIn)
                is not { } on
            )
            {
                var left = faults.Skip(i).SelectMany(f => f.Alerts).Select(a => a.Id).ToHashSet();
                return (i, [.. items.Where(item => left.Contains(item.Id))]);
            }
            newest = Math.Max(newest, on);
            await TellAsync(on, opens ? fault.Alerts.Skip(1) : fault.Alerts, lease, ct);
            await log.SettleAsync([.. fault.Alerts.Select(a => a.Id)], IntakeOutcome.Joined, on, ct);
        }
        return (faults.Count, []);
    }

    /// <summary>
    /// Tickets that changed lately may have ended long before: what a machine goes on saying is written on them, and must not
    /// keep them answering for it for ever.
    /// </summary>
    private async Task<List<(TicketLine Line, string? Array, bool Ended)>> EndedSinceAsync(
        DateTimeOffset since,
        IEnumerable<(TicketLine Line, string? Array, bool Ended)> changedSince,
        CancellationToken ct
    )
    {
        var ended = new List<(TicketLine Line, string? Array, bool Ended)>();
        foreach (var one in changedSince)
            if (await journal.ReadAsync(one.Line.Number, ct) is { Ticket.EndedAt: { } at } && at > since)
                ended.Add(one);
        return ended;
    }

    /// <summary>
    /// A ticket whose engineer has their hands in the machine now: what it says of any drive meanwhile may be that the wrong one was
    /// pulled, and is told there.
    /// </summary>
    private async Task<long?> WithHandsInAsync(IEnumerable<long> open, CancellationToken ct)
    {
        foreach (var number in open)
            if (await journal.ReadAsync(number, ct) is { } record && HandsIn.Are(record.Ticket, time.GetUtcNow()))
                return number;
        return null;
    }

    /// <param name="newest">The newest ticket of the machine that was looked at.</param>
    /// <returns>The ticket; null where there is a newer one by now.</returns>
    private async Task<long?> OpenAsync(
        KnownAppliance known,
        Alert first,
        Snapshot? seen,
        Snapshot? now,
        long newest,
        Lease lease,
        CancellationToken ct
    )
    {
        // Seen just now to be a member still: it works, and will fail.
        var job = now?.BayLabelled(first.Bay) is { Role: BayRole.Member, Health: not DriveHealth.Faulted } ? JobKind.Early : JobKind.Fault;
        var text = Reporting.Short(first is { Bay: null, Serial: null, Name: { } name } ? $"{first.Text} ({name})" : first.Text);
        var report = Reporting.Of(known, text, job, first.Bay, first.Serial, first.At);
        if (report.Problem(new Ticket(0)) is not null || Bounds.Problem(report) is not null)
            report = report with { Serial = null, Bay = null }; // what a machine calls a serial or a bay need not be one
        var intent = new Intent(first.Id, Believable(first.At), 0, Core.People.Actor.Service, report);
        var written = await journal.OpenAsync(intent, ct, newest, lease);
        if (written is Written.Overtaken)
            return null;
        if (written is not Written.Kept opened)
            throw new InvalidDataException($"No ticket could be opened for {known.Appliance.Asset} from '{text}'.");
        if (seen is not null && !opened.Repeated)
            await journal.WriteAsync(
                opened.Entry.Ticket,
                Intents.ByService(new SnapshotTaken(seen), time.GetUtcNow()) with
                {
                    At = seen.TakenAt,
                },
                ct,
                lease
            );
        return opened.Entry.Ticket;
    }

    /// <summary>
    /// What the machine shows now goes on the ticket as well, so that a second drive lowers its margin at once. Not while a
    /// drive is out: the engineer's hands are between two snapshots of their own.
    /// </summary>
    private async Task SeenNowAsync(long number, Snapshot looked, Lease lease, CancellationToken ct)
    {
        if (
            await journal.ReadAsync(number, ct) is not { Ticket: { IsEnded: false } ticket }
            || (ticket.Swap.HasBegun && ticket.Swap.InSerial is null)
        )
            return;
        if (ticket.Latest is not { } before || SnapshotComparison.Between(before, looked).Count > 0)
            await journal.WriteAsync(number, Intents.ByService(new SnapshotTaken(looked), time.GetUtcNow()), ct, lease);
    }

    private const int MostCounted = 20_000;

    /// <summary>How often each thing was said so far: between two tellings that is in no entry.</summary>
    private readonly System.Collections.Concurrent.ConcurrentDictionary<(long, EvidenceKind, string, string?, string?), int> _counted =
        new();

    /// <summary>Each alert once as evidence; the same said again only as its count doubles.</summary>
    private async Task TellAsync(long ticket, IEnumerable<Alert> alerts, Lease lease, CancellationToken ct)
    {
        var record = await journal.ReadAsync(ticket, ct);
        foreach (var same in alerts.GroupBy(a => (a.Kind, a.Text, a.Bay, a.Serial)))
        {
            var before = record?.Ticket.Evidence.Where(e => (e.Kind, e.Text, e.Bay, e.Serial) == same.Key).ToList() ?? [];
            var key = (ticket, same.Key.Kind, same.Key.Text, same.Key.Bay, same.Key.Serial);
            // What was told is what was counted when it had doubled; what came after that is counted on from here.
            var times = Math.Max(before.Select(e => e.Count ?? 1).DefaultIfEmpty(0).Max(), _counted.GetValueOrDefault(key));
            foreach (var alert in same.OrderBy(a => a.At).ThenBy(a => a.Id))
            {
                times = Math.Max(times + 1, alert.Count ?? 0);
                if (!Flapping.IsWorthTelling(times) && alert.Count is null)
                    continue;
                var evidence = new EvidenceSeen(
                    alert.Kind,
                    $"{alert.Via}, {alert.Sender}",
                    Reporting.Short(alert.Text),
                    alert.Bay,
                    alert.Serial,
                    times == 1 ? null : times
                );
                var intent = new Intent(alert.Id, Believable(alert.At), 0, Core.People.Actor.Service, evidence);
                if (await journal.WriteAsync(ticket, intent, ct, lease) is Written.Kept)
                    continue;
                // A bay that this machine does not have, a serial that is none: what was said is kept, without them.
                var plain = evidence with
                {
                    Bay = null,
                    Serial = null,
                    Text = Reporting.Short(alert.Bay is null ? alert.Text : $"{alert.Text} (bay {alert.Bay})"),
                };
                if (await journal.WriteAsync(ticket, intent with { Body = plain }, ct, lease) is not Written.Kept)
                    throw new InvalidDataException($"{TicketNumber.Text(ticket)} does not take '{plain.Text}'.");
            }
            if (_counted.Count > MostCounted)
                _counted.Clear(); // then it goes on from what was told
            _counted[key] = times;
        }
    }

    /// <summary>A machine whose clock was never set says 1970; that it said something now is what is known.</summary>
    private DateTimeOffset Believable(DateTimeOffset at) => at < ServiceClock.Earliest ? time.GetUtcNow() : at;
}

/// <summary>A report with what was known of the machine and its site when it came.</summary>
internal static class Reporting
{
    private const int MostCharacters = 2_000;

    /// <summary>A line of a machine may be longer than an entry takes; its whole text stays in the intake log.</summary>
    public static string Short(string text) => Shortened.To(text, MostCharacters, " ...");

    public static FaultReported Of(KnownAppliance known, string symptom, JobKind job, string? bay, string? serial, DateTimeOffset? since) =>
        new(
            known.Appliance.Asset,
            known.Appliance.Serial,
            $"{known.Model.Maker} {known.Model.Name}",
            known.Site.Customer,
            known.Site.Name,
            known.Appliance.Location,
            job,
            symptom,
            bay,
            serial,
            since,
            known.Appliance.Arrays is [_, ..] ? known.Appliance.Arrays : null,
            Promise.Of(known.Site, known.Customer),
            DataAgreed: known.Customer.Data is DataAgreement.AskEachTime ? null : known.Customer.Data
        );
}
