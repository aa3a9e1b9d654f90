using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Answering;

/// <summary>Somebody asked to see the serial before they had read it: what they then read is no independent mark.</summary>
public sealed record SerialShown(Guid Sheet, string Step) : FactBody
{
    public override string Told() => $"{Step}: the serial was shown before it was read";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Lead];

    public override string? Problem(Ticket ticket) =>
        ticket.Sheet is not { } sheet || sheet.Id != Sheet ? "This ticket has no such run sheet."
        : sheet.Step(Step) is not { Kind: StepKind.Scan }
            ? $"'{Step}' asks for no serial; the run stands at '{ticket.Run?.Current ?? "its end"}'."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Run is { } run && ticket.Sheet?.Id == Sheet ? ticket with { Run = run with { Shown = run.Shown.Add(Step) } } : ticket;
}
