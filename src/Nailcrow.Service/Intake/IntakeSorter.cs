using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Intake;

namespace Nailcrow.Service.Intake;

/// <summary>Says what each message is: evidence of a kind against a known machine, nothing to look at, or not understood.</summary>
internal sealed class IntakeSorter(IntakeRules known, TimeProvider time)
{
    // Rules and senders change by hand; a new one counts within this time.
    private static readonly TimeSpan RememberedFor = TimeSpan.FromSeconds(2);

    private readonly SemaphoreSlim _one = new(1, 1);
    private (DateTimeOffset Until, RuleBook Rules, IReadOnlyDictionary<string, string> Senders) _known = (
        DateTimeOffset.MinValue,
        new([]),
        new Dictionary<string, string>()
    );

    public async Task<IReadOnlyList<IntakeItem>> SortAsync(IReadOnlyList<Incoming> batch, CancellationToken ct)
    {
        var (rules, senders) = await KnownAsync(ct);
        return [.. batch.Select(i => i.Via == "syslog" ? OfSyslog(i, rules, senders) : OfEvent(i))];
    }

    /// <summary>What was kept earlier, held against the rules as they are now: those that are understood with them.</summary>
    public async Task<IReadOnlyList<IntakeItem>> AgainAsync(IEnumerable<IntakeItem> items, CancellationToken ct)
    {
        Forget();
        var (rules, senders) = await KnownAsync(ct);
        var understood = new List<IntakeItem>();
        foreach (var item in items.Where(i => i.Via == "syslog"))
        {
            ct.ThrowIfCancellationRequested(); // whoever asked has left
            var sorted = OfSyslog(new(item.Id, item.ReceivedAt, item.Via, item.Sender, item.Text, item.Asset), rules, senders);
            if (sorted.Outcome is IntakeOutcome.Pending or IntakeOutcome.Ignored)
                understood.Add(sorted);
        }
        return understood;
    }

    public void Forget() => _known = _known with { Until = DateTimeOffset.MinValue };

    private static IntakeItem OfEvent(Incoming incoming) =>
        new(
            incoming.Id,
            incoming.ReceivedAt,
            incoming.Via,
            incoming.Sender,
            null,
            incoming.Text,
            incoming.Alert is null ? IntakeOutcome.Ignored
                : incoming.Asset is null ? IntakeOutcome.UnknownSender
                : IntakeOutcome.Pending,
            null,
            incoming.Asset,
            null,
            incoming.Alert
        );

    private static IntakeItem OfSyslog(Incoming incoming, RuleBook rules, IReadOnlyDictionary<string, string> senders)
    {
        IntakeItem Item(IntakeOutcome outcome, string? app = null, string? rule = null, string? asset = null, Alert? alert = null) =>
            new(incoming.Id, incoming.ReceivedAt, incoming.Via, incoming.Sender, app, incoming.Text, outcome, rule, asset, null, alert);
        if (SyslogMessage.Parse(incoming.Text, incoming.ReceivedAt) is not Parsed<SyslogMessage>.Ok(var message))
            return Item(IntakeOutcome.Unmatched);
        // By the name in the line; by the address only where it names none, since a relay passes on lines of many machines.
        var asset = senders.GetValueOrDefault(message.Host ?? incoming.Sender);
        if (rules.On(message.App, message.Text) is not { } match)
            return Item(asset is null ? IntakeOutcome.UnknownSender : IntakeOutcome.Unmatched, message.App, null, asset);
        if (match.Rule.Outcome == RuleOutcome.Ignore)
            return Item(IntakeOutcome.Ignored, message.App, match.Rule.Id, asset);
        asset = match.Asset?.ToUpperInvariant() ?? asset;
        // A clock that is far off says when its owner believes it was; it did not come before or after it came.
        var at = message.At is { } said && (said - incoming.ReceivedAt).Duration() < TimeSpan.FromDays(1) ? said : incoming.ReceivedAt;
        var alert = new Alert(
            incoming.Id,
            "syslog",
            message.Host ?? incoming.Sender,
            at,
            match.Rule.Kind,
            match.Rule.Says ?? message.Text,
            asset,
            match.Bay,
            match.Name,
            match.Serial,
            match.Array,
            match.Count
        );
        return Item(asset is null ? IntakeOutcome.UnknownSender : IntakeOutcome.Pending, message.App, match.Rule.Id, asset, alert);
    }

    private async Task<(RuleBook Rules, IReadOnlyDictionary<string, string> Senders)> KnownAsync(CancellationToken ct)
    {
        await _one.WaitAsync(ct);
        try
        {
            if (time.GetUtcNow() >= _known.Until)
                _known = (time.GetUtcNow() + RememberedFor, new(await known.RulesAsync(ct)), await known.SendersAsync(ct));
            return (_known.Rules, _known.Senders);
        }
        finally
        {
            _one.Release();
        }
    }
}
