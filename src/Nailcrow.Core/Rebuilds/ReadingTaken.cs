using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Rebuilds;

/// <summary>Somebody, or the machine, says how far the rebuild is.</summary>
public sealed record ReadingTaken(string Array, Progress Progress, RebuildPhase Phase, string Source, decimal? Percent = null) : FactBody
{
    public override string Told() =>
        $"Reading of {Array}: "
        + $"{(Progress == Progress.Running ? $"{(Percent is { } percent ? $"{percent} %" : "no percentage")} of {Words.Of(Phase)}" : Words.Of(Progress))}, "
        + $"{Source}";

    public override string? Problem(Ticket ticket) => Reading.Problem(Percent);

    public Reading At(DateTimeOffset at) => new(at, Array, Progress, Phase, Percent, Source);

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { Readings = Thinned.With(ticket.Readings, At(stamp.At)) };
}
