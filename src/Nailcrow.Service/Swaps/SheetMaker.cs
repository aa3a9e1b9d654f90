using Nailcrow.Core;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Service.Procedures;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Swaps;

/// <summary>Compiles the run sheet of a ticket from what is known of it now.</summary>
internal sealed class SheetMaker(ReferenceBook book, ProcedureLibrary library)
{
    public async Task<Parsed<SheetCompiled>> MakeAsync(Ticket ticket, string? procedure, CancellationToken ct)
    {
        if (ticket.Report is not { } report || await book.FindAsync(report.Asset, ct) is not { } known)
            return No($"{ticket.Report?.Asset} is not among the known appliances any more; without its model there is no sheet.");
        if (ticket.Part is not { } part)
            return No("No replacement is reserved; the sheet names its serial. Stores reserves one.");
        if (SwapTarget.Of(ticket) is not Parsed<SwapTarget>.Ok(var target))
            return No(((Parsed<SwapTarget>.Refused)SwapTarget.Of(ticket)).Reason);
        if (Chosen(procedure, known) is not { } chosen)
            return No(WhyNone(procedure, known));
        var facts = new SheetFacts(known.Model, report.Asset, known.Appliance.Serial, report.Site, report.Location, target.Array.Name, target.Bay, part.Serial);
        return SheetCompiler.Compile(chosen, facts, Guid.CreateVersion7()) switch
        {
            Parsed<RunSheet>.Ok(var sheet) => new Parsed<SheetCompiled>.Ok(new(sheet)),
            Parsed<RunSheet>.Refused(var reason) => No(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    private Procedure? Chosen(string? id, KnownAppliance known) => id is null ? library.For(known.Model).FirstOrDefault() : library.Find(id);

    private string WhyNone(string? id, KnownAppliance known) =>
        id is null
            ? $"No procedure is written for {known.Model.Maker} {known.Model.Name}."
            : $"There is no procedure '{id}'; for this model there are: {string.Join(", ", library.For(known.Model).Select(p => p.Id).DefaultIfEmpty("none"))}.";

    private static Parsed<SheetCompiled> No(string reason) => new Parsed<SheetCompiled>.Refused(reason);
}
