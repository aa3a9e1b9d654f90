using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps;

/// <summary>Which drives this ticket swaps, by their serials, in the order they are done.</summary>
public sealed record DrivesChosen(IReadOnlyList<string> Serials) : DecisionBody
{
    public override string Told() => $"Drives to swap, in order: {string.Join(", ", Serials)}";

    // A shelf has 106 bays; nobody does more on one ticket.
    private const int Most = ApplianceModel.MostBays;

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket.OnlyAdds ? "A drive is added here, and none comes out; a drive that is to come out gets a ticket of its own."
        : Serials.Count is 0 or > Most ? $"Name 1 to {Most} drives; {Serials.Count} were named."
        : ticket.HasMoved || IsDrawnOut(ticket)
            ? "A drive has been moved already; the drives of this ticket are settled. A further one gets a ticket of its own."
        : Serials.GroupBy(SerialNumber.Normalise).FirstOrDefault(g => g.Count() > 1) is { } twice ? $"{twice.Key} is named twice."
        : ticket.Latest is not { } latest ? "Nothing is known of the bays yet; take a snapshot first."
        : Serials.FirstOrDefault(s => latest.Holding(s) is null) is { } unknown ? $"No bay holds {unknown} in the last snapshot."
        : null;

    /// <summary>A drive is out, or was, though nobody has read yet which.</summary>
    private static bool IsDrawnOut(Ticket ticket) =>
        ticket is { Sheet: { } sheet, Run: { } run } && run.Visits.Any(v => sheet.Step(v.Step)?.Records == Records.DrawnOut);

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { Chosen = [.. Serials.Select(SerialNumber.Normalise)] };
}
