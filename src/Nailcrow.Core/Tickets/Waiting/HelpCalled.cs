using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Waiting;

/// <summary>A call for help and, once a lead has spoken, the answer.</summary>
public sealed record HelpCall(
    string Reason,
    string By,
    DateTimeOffset At,
    bool? GoAhead = null,
    string? Answer = null,
    string? AnsweredBy = null,
    DateTimeOffset? AnsweredAt = null
)
{
    public bool IsOpen => GoAhead is null;
}

/// <summary>Somebody needs a lead. Always recorded: asking for help is never refused.</summary>
public sealed record HelpCalled(string Reason) : FactBody
{
    public override string Told() => $"Called for help: {Reason}";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { Help = new(Reason, stamp.By, stamp.At) };
}
