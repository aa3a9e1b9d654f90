using System.Text.Json.Serialization;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Seen;

/// <summary>What became of a machine's power.</summary>
[JsonConverter(typeof(KebabEnum<PowerChange>))]
public enum PowerChange
{
    /// <summary>It was off when somebody came or looked.</summary>
    FoundOff,
    PowerCut,
    SwitchedOff,

    /// <summary>Off and on again in one go, by somebody or by itself.</summary>
    Restarted,
    SwitchedOn,
}

/// <summary>The machine went off, on, or both. Whoever switches it does so on somebody's word.</summary>
/// <param name="AllowedBy">Who said that it may be; for what was found, who knows of it.</param>
public sealed record PowerTold(PowerChange Change, string? AllowedBy = null, string? Because = null) : FactBody
{
    public override string Told() =>
        $"Power: {EntryTold.Said(Words.Of(Change))}"
        + $"{(AllowedBy is { } who ? $", {(IsByHand(Change) ? "allowed by" : "says")} {who}" : "")}{(Because is { } why ? $". {why}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        IsByHand(Change) && string.IsNullOrWhiteSpace(AllowedBy)
            ? $"'{Words.Of(Change)}' is somebody's decision; say who allowed it (allowedBy)."
            : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Power = PowerTimes.After(ticket.Power, Change, stamp.At, AllowedBy, Because),
        };

    /// <summary>Somebody did it, and on somebody's word.</summary>
    private static bool IsByHand(PowerChange change) => change is PowerChange.SwitchedOff or PowerChange.SwitchedOn;
}
