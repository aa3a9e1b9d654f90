using Nailcrow.Core.Intake.Rules;

namespace Nailcrow.Client.Intake;

/// <summary>One message as it came in, and what became of it.</summary>
/// <param name="IsOfUnknownMachine">A person named a machine that nobody knows yet.</param>
/// <param name="Times">How often the same was said by the same sender; this is the last one, and what becomes of it becomes of all.</param>
/// <param name="First">When it was said first.</param>
/// <param name="Outcome">pending, joined, ignored, repeated, unmatched, unknown-sender or settled.</param>
public sealed record IntakeView(
    Guid Id,
    DateTimeOffset ReceivedAt,
    string Via,
    string Sender,
    string? App,
    string Text,
    string Outcome,
    string? Rule,
    string? Asset,
    long? Ticket,
    bool IsOfUnknownMachine = false,
    int Times = 1,
    DateTimeOffset? First = null
);

/// <param name="Counts">How many there are of each outcome, of the last 24 hours.</param>
/// <param name="TurnedAway">Datagrams that found no room since the service started; 0 unless it was flooded.</param>
public sealed record IntakeList(IReadOnlyList<IntakeView> Items, IReadOnlyDictionary<string, int> Counts, long TurnedAway);

public sealed record RuleList(IReadOnlyList<IntakeRule> Rules);

/// <summary>A line to try, with the rules as they are or with one more.</summary>
public sealed record TryAsk(string Line, IntakeRule? Rule = null);

/// <summary>How a line was read, and what the rules make of it.</summary>
/// <param name="Problem">Why it is no syslog line; null where it is one.</param>
/// <param name="Rule">The id of the rule that matched; null where none did.</param>
public sealed record Tried(
    string? Problem,
    DateTimeOffset? At,
    string? Host,
    string? App,
    string? Text,
    string? Rule,
    string? Outcome,
    string? Kind,
    string? Bay,
    string? Name,
    string? Serial,
    string? Array,
    string? Asset,
    int? Count
);

/// <param name="Understood">How many kept messages the rule put among the pending.</param>
public sealed record RulePut(IntakeRule Rule, int Understood);

/// <summary>A person makes a ticket of a message nobody understood; without an asset it is only settled.</summary>
public sealed record IntakeSettleAsk(string? Asset = null, string? Bay = null, string? Serial = null);

/// <param name="Secret">Shown once; what events are signed with.</param>
public sealed record EventSenderView(string Name, string Secret, string Url);
