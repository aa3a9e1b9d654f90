using Nailcrow.Client.Swaps;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Following.Leaving;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Sheets;
using Nailcrow.Service.Procedures;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Swaps;

/// <summary>Compiles the run sheet of a ticket from what is known of it now.</summary>
internal sealed class SheetMaker(ReferenceBook book, ProcedureLibrary library, TimeProvider time)
{
    public async Task<Parsed<SheetCompiled>> MakeAsync(Ticket ticket, SheetAsk ask, CancellationToken ct)
    {
        var known = await book.FindAsync((ticket.Report ?? FaultReported.Lost).Asset, ct);
        if (!(await ChosenAsync(ticket, known, ask.Procedure, ct)).Is(out var meant, out var none))
            return new Parsed<SheetCompiled>.Refused(
                ask.Procedure is not null && IsUnderWay(ticket) ? SheetCompiled.WhyNotReplaced(ticket) ?? none : none
            );
        var leaves = ask.Procedure is not null && IsUnderWay(ticket) && meant.Procedure.ComesBack != ComesBack.Unchanged;
        if (leaves && WhyNotLeft(ticket, meant.Procedure, ask.Because) is { } stays)
            return new Parsed<SheetCompiled>.Refused(stays);
        var replaces = leaves || (ask.Procedure is null && await OutdatedAsync(ticket, known, ct) is not null);
        return SheetCompiler.Compile(meant.Procedure, meant.Facts, Guid.CreateVersion7()).Is(out var sheet, out var no)
            ? new Parsed<SheetCompiled>.Ok(new(sheet, replaces ? ticket.Sheet?.Id : null, leaves ? ask.Because : null))
            : new Parsed<SheetCompiled>.Refused(no);
    }

    /// <summary>Something was done on this run, or on one that was left for it.</summary>
    private static bool IsUnderWay(Ticket ticket) =>
        ticket.Run is { IsFinished: false } run && (run.Visits.Count > 0 || ticket.LeftSheets.Count > 0);

    private static string? WhyNotLeft(Ticket ticket, Procedure other, string? because) =>
        SheetCompiled.WhyNotReplaced(ticket)
        ?? (ticket.Sheet?.Procedure == other.Id ? $"The run is on '{other.Title}' already." : null)
        ?? (
            string.IsNullOrWhiteSpace(because)
                ? $"Say in a sentence why '{ticket.Sheet?.Title}' is left for '{other.Title}'; what both have and is done stays done."
                : null
        );

    /// <summary>What a run that is under way may be left for: recoveries, what applies besides, and what it was left from; none at its end.</summary>
    public async Task<IReadOnlyList<OtherSheet>> OthersAsync(Ticket ticket, CancellationToken ct)
    {
        if (
            ticket is not { Sheet: { } sheet, Run.IsFinished: false }
            || await book.FindAsync((ticket.Report ?? FaultReported.Lost).Asset, ct) is not { } known
        )
            return [];
        var facts = FactsOf(ticket, known);
        var left = ticket.LeftSheets.Select(l => l.Sheet.Procedure).ToHashSet();
        return
        [
            .. (await library.UsableAsync(ct))
                .Where(p => p.Id != sheet.Procedure && (left.Contains(p.Id) || p.AppliesTo.Holds(facts.Of) == true))
                .Select(p => new OtherSheet(
                    p.Id,
                    p.Title,
                    p.ComesBack == ComesBack.Unchanged,
                    left.Contains(p.Id),
                    WhyNot(ticket, facts, p)
                ))
                .OrderBy(o => !o.IsRecovery)
                .ThenBy(o => !o.WasLeft),
        ];
    }

    private string? WhyNot(Ticket ticket, SheetFacts facts, Procedure other) =>
        other.ComesBack == ComesBack.Unchanged ? SheetCompiled.NotNow(ticket, isRecovery: true)
        : !IsUnderWay(ticket) ? SheetCompiled.NotNow(ticket, isRecovery: false)
        : SheetCompiled.WhyNotReplaced(ticket)
            ?? WhyNoDrive(ticket, other)
            ?? Choosing.Missing(other, facts, ticket.PartsSetAside)
            ?? (
                SheetCompiler.Compile(other, facts, Guid.Empty).Is(out var sheet, out var no)
                    ? SheetCompiled.WhyNotLeftFor(sheet, ticket, time.GetUtcNow())
                    : no
            );

    /// <summary>Why a sheet that is being followed is for what is no longer so; null where it fits, or where it is too late for another.</summary>
    public async Task<string?> OutdatedAsync(Ticket ticket, KnownAppliance? known, CancellationToken ct) =>
        !SheetCompiled.MayBeReplaced(ticket) || ticket.Sheet is not { ComesBack: not ComesBack.Cannot } sheet ? null
        : IsAnotherMachine(sheet, known)
            ? $"This sheet looks for a machine with the serial {sheet.ChassisSerial}{(sheet.Location is { } there ? $" at {there}" : "")}; it was put "
                + $"right that {known?.Appliance.Asset} has {known?.Appliance.Serial} and stands at {known?.Appliance.Location}."
        : SheetCompiled.IsSeatedInVain(ticket)
            ? $"{ticket.Swap.InSerial} was seated again, and is not good after all. Its replacement goes in, on a sheet for that."
        : OtherDrives(ticket, sheet) is { } other ? other
        : await ChosenAsync(ticket, known, null, ct) is Parsed<Meant>.Ok(var now) && now.Procedure.ComesBack != sheet.ComesBack
            ? $"This sheet was made for something else than what is so now ({sheet.Title}); '{now.Procedure.Title}' is for that."
        : null;

    /// <summary>Further drives were chosen, or others, before one was moved.</summary>
    private static string? OtherDrives(Ticket ticket, RunSheet sheet)
    {
        IReadOnlyList<string> has = sheet.Drives is { Count: > 0 } drives ? [.. drives.Select(d => d.Serial)] : [sheet.TargetSerial];
        return ticket.HasMoved || ticket.Chosen.Count == 0 || ticket.Chosen.SequenceEqual(has)
            ? null
            : $"This sheet is for {string.Join(", ", has)}; chosen are {string.Join(", ", ticket.Chosen)} now.";
    }

    private static bool IsAnotherMachine(RunSheet sheet, KnownAppliance? known) =>
        known is not null
        && (
            SerialComparison.Between(sheet.ChassisSerial, known.Appliance.Serial).Outcome != SerialOutcome.Exact
            || (sheet.Location ?? known.Appliance.Location) != known.Appliance.Location
        );

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
        var facts = FactsOf(ticket, known);
        var usable = await library.UsableAsync(ct);
        if (!Chosen(usable, procedure, facts).Is(out var chosen, out var none))
            return No(await WithdrawnForAsync(procedure, facts, ct) ?? $"{none} A lead knows what is done instead.");
        if (WhyNoDrive(ticket, chosen) is { } no)
            return No(no);
        if (Choosing.Missing(chosen, facts, ticket.PartsSetAside) is { } missing)
            return No(missing);
        return new Parsed<Meant>.Ok(new(chosen, facts));
    }

    private static SheetFacts FactsOf(Ticket ticket, KnownAppliance known) =>
        SheetFactsOf.Ticket(ticket, known.Model, known.Appliance.Serial, known.Appliance.Address is not null, known.Appliance.Location);

    private static string? WhyNoDrive(Ticket ticket, Procedure procedure) =>
        procedure.ComesBack is not (ComesBack.Cannot or ComesBack.Unchanged)
        && ticket.Chosen.Count == 0
        && !SheetCompiled.IsWholeWithoutTheNewDrive(ticket) // then it is about the drive of the sheet it has
        && !SwapTarget.Of(ticket).Is(out _, out var no)
            ? no
            : null;

    /// <summary>Where the one that would be for it was withdrawn, who did that is who to ask; null where none was.</summary>
    private async Task<string?> WithdrawnForAsync(string? id, SheetFacts facts, CancellationToken ct) =>
        (await library.WithdrawnAsync(ct))
            .Where(w => id is null ? !w.Procedure.ByName && w.Procedure.AppliesTo.Holds(facts.Of) == true : w.Procedure.Id == id)
            .Select(w =>
                $"'{w.Procedure.Id}' is for this, and was withdrawn by {w.Version.WithdrawnBy}: {w.Version.WithdrawnBecause} "
                + $"Ask {w.Version.WithdrawnBy}, or a lead; one who publishes procedures brings it back or writes another."
            )
            .FirstOrDefault();

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
