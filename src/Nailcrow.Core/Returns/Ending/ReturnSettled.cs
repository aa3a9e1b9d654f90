using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ending;

/// <summary>What came of a return.</summary>
[JsonConverter(typeof(KebabEnum<Outcome>))]
public enum Outcome
{
    /// <summary>Another drive came for it.</summary>
    Exchanged,
    Credited,

    /// <summary>It is charged: it came late, or not as it was announced.</summary>
    Charged,

    /// <summary>The claim is refused, and why.</summary>
    Refused,
}

/// <summary>Whoever a return went to has said what comes of it.</summary>
/// <param name="Amount">What is paid or credited, with its currency, as their paper says: "140.00 EUR".</param>
public sealed record ReturnSettled(string Serial, Outcome Outcome, string? Amount = null, string? Note = null) : FactBody
{
    public override string Told() =>
        $"Return of {Serial} {Words.Of(Outcome)}{(Amount is { } amount ? $", {amount}" : "")}{(Note is { } note ? $": {note}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Stores, Role.Dispatcher, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        HandedOn.Problem(Serial) is { } no ? no
        : !ticket.Returns.Exists(r => r.Serial == SerialNumber.Normalise(Serial)) ? $"No return for {Serial} was opened on this ticket."
        : Outcome == Outcome.Refused && string.IsNullOrWhiteSpace(Note) ? "Say why the claim was refused, as they say it."
        : Outcome == Outcome.Charged && string.IsNullOrWhiteSpace(Amount) ? "Say what is charged, with its currency."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Returns.Find(r => r.Serial == SerialNumber.Normalise(Serial)) is { } back
            ? ticket with
            {
                Returns = ticket.Returns.Replace(
                    back,
                    back with
                    {
                        Outcome = Outcome,
                        OutcomeSays = Said(),
                        SettledAt = stamp.At,
                        SettledBy = stamp.By,
                    }
                ),
            }
            : ticket;

    private string? Said() =>
        string.Join(": ", new[] { Amount, Note }.Where(s => !string.IsNullOrWhiteSpace(s))) is { Length: > 0 } said ? said : null;
}
