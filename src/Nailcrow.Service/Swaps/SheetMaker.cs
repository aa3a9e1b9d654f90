using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Sheets;
using Nailcrow.Service.Procedures;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Swaps;

/// <summary>Compiles the run sheet of a ticket from what is known of it now.</summary>
internal sealed class SheetMaker(ReferenceBook book, ProcedureLibrary library)
{
    public async Task<Parsed<SheetCompiled>> MakeAsync(Ticket ticket, string? procedure, CancellationToken ct) =>
        await ChosenAsync(ticket, await book.FindAsync((ticket.Report ?? FaultReported.Lost).Asset, ct), procedure, ct) switch
        {
            Parsed<Meant>.Ok(var meant) => SheetCompiler
                .Compile(meant.Procedure, meant.Facts, Guid.CreateVersion7())
                .Is(out var sheet, out var no)
                ? new Parsed<SheetCompiled>.Ok(new(sheet))
                : new Parsed<SheetCompiled>.Refused(no),
            Parsed<Meant>.Refused(var reason) => new Parsed<SheetCompiled>.Refused(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    /// <summary>Why none can be made yet; null where one can, or where nobody starts one: while a run is under way, or after the end.</summary>
    public async Task<string?> WhyNotAsync(Ticket ticket, KnownAppliance? known, CancellationToken ct) =>
        ticket is { IsEnded: true } or { Run: { IsFinished: false, Visits.Count: > 0 } } ? null
        : await ChosenAsync(ticket, known, null, ct) is Parsed<Meant>.Refused(var reason) ? reason
        : null;

    private sealed record Meant(Procedure Procedure, SheetFacts Facts);

    private async Task<Parsed<Meant>> ChosenAsync(Ticket ticket, KnownAppliance? known, string? procedure, CancellationToken ct)
    {
        if (known is null || ticket.Report is null)
            return No($"{ticket.Report?.Asset} is not among the known appliances any more; without its model there is no sheet.");
        var facts = SheetFactsOf.Ticket(ticket, known.Model, known.Appliance.Serial, known.Appliance.Address is not null);
        var usable = await library.UsableAsync(ct);
        if (!Chosen(usable, procedure, facts).Is(out var chosen, out var none))
            return No(none);
        if (
            chosen.ComesBack is not (ComesBack.Cannot or ComesBack.Unchanged)
            && ticket.Chosen.Count == 0
            && !SwapTarget.Of(ticket).Is(out _, out var no)
        )
            return No(no);
        if (Choosing.Missing(chosen, facts, ticket.Parts.Count) is { } missing)
            return No(missing);
        return new Parsed<Meant>.Ok(new(chosen, facts));
    }

    private static Parsed<Procedure> Chosen(IReadOnlyList<Procedure> usable, string? id, SheetFacts facts)
    {
        var applying = Choosing.For(usable, facts);
        if (id is null)
            return applying is [var best, ..]
                ? new Parsed<Procedure>.Ok(best)
                : new Parsed<Procedure>.Refused(
                    $"No procedure is written for {facts.Model.Maker} {facts.Model.Name} and a {Words.Of(facts.Ticket.Job)} of {facts.Ticket.Drives}."
                );
        return usable.FirstOrDefault(p => p.Id == id) is { } named
            ? new Parsed<Procedure>.Ok(named)
            : new Parsed<Procedure>.Refused(
                $"There is no procedure '{id}'; for this ticket there are: "
                    + $"{string.Join(", ", applying.Concat(usable.Where(p => p.ByName)).Select(p => p.Id).DefaultIfEmpty("none"))}."
            );
    }

    private static Parsed<Meant> No(string reason) => new Parsed<Meant>.Refused(reason);
}
