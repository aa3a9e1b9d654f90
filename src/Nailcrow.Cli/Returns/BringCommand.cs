using System.CommandLine;
using Nailcrow.Cli.Appliances;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Returns;

/// <summary>What to have in the van.</summary>
internal static class BringCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var all = new Option<bool>("--all") { Description = "List every part that does not fit as well." };
        var plan = Said.Optional("--plan", "Reckon exchanges through: 3=12TB,5=16TB.", "BAY=SIZE,...");
        return new Command("bring", "What to bring: parts in stock that fit, with reasons, tools, and what the array then holds.")
        {
            ticket,
            all,
            plan,
        }.Does(async call =>
        {
            var bring = await call.Client.BringAsync(call.Get(ticket), call.Ct, call.Get(plan));
            var view = await call.Client.TicketAsync(call.Get(ticket), call.Ct);
            call.Show(bring, ContractJson.Default.BringView, screen => Told(screen, bring, view.Replacements, call.Get(all)));
        });
    }

    private static void Told(Screen screen, BringView bring, IReadOnlyList<Replacement> replacements, bool all)
    {
        screen.Line($"[bold]{Screen.Safe(bring.Needed)}[/]");
        foreach (var part in replacements)
            SetAside(screen, part, bring.SetAside?.FirstOrDefault(p => p.Part.Serial == part.Serial));
        Parts(screen, bring.Parts, all);
        if (bring.Spares is { } spares)
            screen.Line($"Spares there: {Screen.Safe(spares)}");
        if (bring.Capacity is { } capacity)
            screen.Line($"Capacity: now {Told(capacity.Now)}; after {Told(capacity.After)}. {Screen.Safe(capacity.Note)}");
        Larger(screen, bring);
        screen.Line($"Tools: {Screen.Safe(string.Join("; ", bring.Tools))}.");
    }

    /// <summary>Where a replacement is, and what speaks against it today, whatever was said when it was set aside.</summary>
    private static void SetAside(Screen screen, Replacement part, PartFit? now)
    {
        screen.Line(
            $"Replacement {Screen.Safe(part.Serial)} {Screen.Safe(part.Model)}: {Screen.Safe(part.Is)}"
                + $"{(part.OverruledBecause is { } because ? $", although warned: {Screen.Safe(because)}" : "")}"
        );
        foreach (var against in now is null ? [] : now.Blocks.Concat(now.Warns))
            screen.Line($"  {(now?.Fit == Fit.DoesNotFit ? "[bold]does not fit[/]" : "look twice")}: {Screen.Safe(against)}");
    }

    private static void Parts(Screen screen, IReadOnlyList<PartFit> parts, bool all)
    {
        var unfit = parts.Where(p => p.Fit == Fit.DoesNotFit).ToList();
        var shown = all ? parts : [.. parts.Where(p => p.Fit != Fit.DoesNotFit), .. unfit.Take(FewUnfit)];
        screen.Table(
            ["", "serial", "model", "size", "depot", "because"],
            shown.Select(p =>
                new[]
                {
                    p.Fit switch
                    {
                        Fit.Fits => "[bold]fits[/]",
                        Fit.FitsWithWarnings => "look twice",
                        _ => "[dim]does not fit[/]",
                    },
                    Screen.Safe(p.Part.Serial),
                    Screen.Safe(p.Part.Model),
                    ByteSize.Both(p.Part.Bytes),
                    Screen.Safe(p.Part.Depot),
                    Screen.Safe(string.Join(" ", p.Blocks.Concat(p.Warns).Concat(p.Notes))),
                }
            )
        );
        if (unfit.Count > FewUnfit && !all)
            screen.Line($"[dim]and {unfit.Count - FewUnfit} more that do not fit; --all lists them[/]");
        if (parts.Count == 0)
            screen.Line("Nothing is in stock. 'nailcrow import drives FILE' brings in a depot's list.");
    }

    /// <summary>What larger drives give: those that were asked about, each bay alone, and several together.</summary>
    private static void Larger(Screen screen, BringView bring)
    {
        if (bring.Plan is { } planned)
            screen.Line(
                "As planned (bay "
                    + $"{string.Join(", ", planned.Changes.Select(c => $"{Screen.Safe(c.Bay)} to {Size.Both(c.To)}"))}): "
                    + $"{Told(planned.After)}; "
                    + (
                        planned.Gain == 0 ? "nothing gained."
                        : planned.Gain > 0 ? $"{Size.Both(planned.Gain)} more usable."
                        : $"{Size.Both(-planned.Gain)} less usable."
                    )
            );
        foreach (var bay in bring.EachBay ?? [])
            screen.Line(
                bay.Size is { } size
                    ? $"  bay {Screen.Safe(bay.Bay)} alone: {Size.Both(size)} gives all it can, {Size.Both(bay.Gain)} more."
                    : $"  [dim]bay {Screen.Safe(bay.Bay)} alone: no larger drive gives anything.[/]"
            );
        foreach (var upgrade in bring.Upgrades)
            screen.Line(
                $"  {upgrade.Changes.Count} larger: bay "
                    + $"{string.Join(", ", upgrade.Changes.Select(c => Screen.Safe(c.Bay)))} gives {Size.Both(upgrade.Gain)} "
                    + "more usable."
            );
    }

    // Enough to see why; a shelf has many.
    private const int FewUnfit = 2;

    private static string Told(Capacity capacity) =>
        $"usable {Size.Both(capacity.Usable)}, protected {Size.Both(capacity.Protected)}, unused {Size.Both(capacity.Unused)}";
}
