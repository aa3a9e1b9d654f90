using System.Collections.Immutable;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps;

/// <summary>A time in which the machine was off. Nothing was read or written then, and nothing seen.</summary>
/// <param name="From">When it went off, or was found so.</param>
/// <param name="To">Null while it is off.</param>
/// <param name="AllowedBy">Who had it switched off, or knows of it; null where nobody said.</param>
/// <param name="OnAllowedBy">Who had it switched on again.</param>
public sealed record PowerOff(
    DateTimeOffset From,
    DateTimeOffset? To,
    PowerChange How,
    string? AllowedBy = null,
    string? Because = null,
    string? OnAllowedBy = null
)
{
    public string Told() =>
        $"{Words.Capital(EntryTold.Said(Words.Of(How)))}"
        + $"{(AllowedBy is { } who ? $" ({who})" : "")}{(Because is { } why ? $": {why.TrimEnd('.')}" : "")}. "
        + (
            To is not { } to ? $"Off since {EntryTold.Clock(From)}."
            : to == From ? $"At {EntryTold.Clock(From)}."
            : $"Off from {EntryTold.Clock(From)} to {EntryTold.Clock(to)}, {Watch.Told(to - From)}"
                + $"{(OnAllowedBy is { } allowed ? $"; switched on on the word of {allowed}" : "")}."
        );
}

/// <summary>The times in which a machine was off, oldest first.</summary>
internal static class PowerTimes
{
    /// <summary>What a step of a sheet does to the power, once it is done; null where it does nothing to it.</summary>
    public static PowerChange? Of(RunStep step) =>
        step.Records == Records.FoundOff ? PowerChange.FoundOff
        : step.Opens == RunStep.Power ? PowerChange.SwitchedOff
        : step.Records == Records.SwitchedOn || step.Closes == RunStep.Power ? PowerChange.SwitchedOn
        : null;

    /// <summary>As it was before a change that was said by mistake.</summary>
    public static ImmutableList<PowerOff> Without(ImmutableList<PowerOff> times, PowerChange change) =>
        (change, times.LastOrDefault()) switch
        {
            (_, null) => times,
            (PowerChange.SwitchedOn, { To: not null } on) when on.To > on.From => times.SetItem(
                times.Count - 1,
                on with
                {
                    To = null,
                    OnAllowedBy = null,
                }
            ),
            _ => times.RemoveAt(times.Count - 1),
        };

    public static ImmutableList<PowerOff> After(
        ImmutableList<PowerOff> times,
        PowerChange change,
        DateTimeOffset at,
        string? allowedBy,
        string? because
    ) =>
        (change, times.LastOrDefault()) switch
        {
            (PowerChange.SwitchedOn, { To: null } off) => times.SetItem(times.Count - 1, off with { To = at, OnAllowedBy = allowedBy }),
            (PowerChange.SwitchedOn, _) => times.Add(new(at, at, PowerChange.SwitchedOn, allowedBy, because)), // off unseen before
            (PowerChange.Restarted, _) => times.Add(new(at, at, PowerChange.Restarted, allowedBy, because)),
            // Who finds it off that is known to be off says more of the same time.
            (_, { To: null } off) => times.SetItem(
                times.Count - 1,
                off with
                {
                    AllowedBy = off.AllowedBy ?? allowedBy,
                    Because = off.Because ?? because,
                }
            ),
            _ => times.Add(new(at, null, change, allowedBy, because)),
        };
}
