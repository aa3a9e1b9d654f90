using System.Globalization;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Tickets;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Returns.Stock;

/// <summary>Stores as tables and sentences.</summary>
internal static class StockTold
{
    private const int Few = 12;

    public static void Desk(Screen screen, StoresDesk desk)
    {
        Section(screen, "Pick", desk.Pick.Count, "Nothing is set aside that waits on a shelf.");
        if (desk.Pick.Count > 0)
            screen.Table(
                ["serial", "shelf", "for", "to", "until"],
                desk.Pick.Take(Few)
                    .Select(p =>
                        new[]
                        {
                            $"[bold]{Screen.Safe(p.Part.Serial)}[/]",
                            Screen.Safe(Where(p.Part.Holder)),
                            $"{TicketNumber.Text(p.Ticket)} {Screen.Safe(p.Asset)}",
                            Screen.Safe(p.Engineer ?? "nobody yet"),
                            p.NeededBy is { } at ? Telling.Clock(at, null) : "",
                        }
                    )
            );
        Listed(screen, "Late", desk.Late, "Nothing is late.");
        Listed(screen, "On the way", desk.OnTheWay, "Nothing is on its way.");
        Listed(screen, "To look at", desk.ToInspect, "Nothing that came back waits to be looked at.");
        Listed(screen, "To wipe", desk.ToWipe, "No used drive waits to be wiped.");
        Listed(screen, "Set apart", desk.Apart, "Nothing waits to be destroyed, is evidence, or is known to be bad.");
        Section(screen, "On the shelves", desk.Shelves.Sum(s => s.There), "Nothing lies in any depot.");
        if (desk.Shelves.Count > 0)
            screen.Table(
                ["depot", "model", "size", "there", "free", "to wipe"],
                desk.Shelves.Select(s =>
                    new[]
                    {
                        Screen.Safe(s.Depot),
                        Screen.Safe(s.Model.Length == 0 ? "not said" : s.Model),
                        s.Bytes == 0 ? "" : ByteSize.Both(s.Bytes),
                        $"{s.There}",
                        $"[bold]{s.Free}[/]",
                        s.ToWipe == 0 ? "" : $"{s.ToWipe}",
                    }
                )
            );
        Section(screen, "With people", desk.Carried.Sum(c => c.Parts), "Nobody has parts with them.");
        foreach (var carried in desk.Carried)
            screen.Line(
                $"  {Screen.Safe(carried.Holder.ToString())}: {carried.Parts}, the oldest since {Telling.Clock(carried.Oldest, null)}"
            );
        Section(screen, "To order", desk.Order.Sum(o => o.Order), "Nothing has to be ordered.");
        foreach (var order in desk.Order)
            screen.Line($"  [bold]{order.Order} {Screen.Safe(order.Model)}[/]: {Screen.Safe(order.Says)}");
    }

    public static void Parts(Screen screen, IReadOnlyList<StoredPart> parts, string none)
    {
        if (parts.Count == 0)
            screen.Line(Screen.Safe(none));
        else
            screen.Table(
                ["serial", "model", "size", "where", "since", ""],
                parts.Select(p =>
                    new[]
                    {
                        $"[bold]{Screen.Safe(p.Serial)}[/]",
                        Screen.Safe(p.Model),
                        p.Bytes == 0 ? "" : ByteSize.Both(p.Bytes),
                        Screen.Safe(Where(p.Holder)),
                        Telling.Clock(p.Since, null),
                        Screen.Safe(Also(p)),
                    }
                )
            );
    }

    public static void Line(Screen screen, PartLineView line)
    {
        var what = line.Now is { Model.Length: > 0 } now
            ? $"  {Screen.Safe(now.Model)}{(now.Bytes == 0 ? "" : $", {ByteSize.Both(now.Bytes)}")}"
            : "";
        screen.Line($"[bold]{Screen.Safe(line.Serial)}[/]{what}");
        if (line.Now is { } part)
            screen.Line($"  now {Screen.Safe(part.Holder.Where())}{(Also(part) is { Length: > 0 } also ? $": {Screen.Safe(also)}" : "")}");
        foreach (var m in line.Movements)
            screen.Line(
                $"  [dim]{Telling.Clock(m.At, null)}[/]  {Screen.Safe(m.Told())} [dim]{Screen.Safe(m.By)}"
                    + $"{(m.Ticket is { } ticket ? $", {TicketNumber.Text(ticket)}" : "")}[/]"
            );
    }

    public static void Count(Screen screen, CountAnswer answer)
    {
        var c = answer.Counted;
        screen.Line($"{Screen.Safe(c.At.ToString())}: {c.Scanned} scanned, {c.AsRecorded} as recorded.");
        foreach (var missing in c.Missing.Take(Few))
            screen.Line(
                $"  [bold]missing[/] {Screen.Safe(missing.Serial)} {Screen.Safe(missing.Model)}, there since {Telling.Clock(missing.Since, null)}"
            );
        if (c.Missing.Count > Few)
            screen.Line($"  [dim]and {c.Missing.Count - Few} more that are missing; --json has all[/]");
        foreach (var found in c.Found)
            screen.Line($"  [bold]here[/] {Screen.Safe(found.Says)}");
        foreach (var unknown in c.Unknown)
            screen.Line($"  [bold]unknown[/] {Screen.Safe(unknown)}: 'nailcrow stock receive' takes it in.");
        foreach (var twice in c.Twice)
            screen.Line($"  [dim]{Screen.Safe(twice)} was scanned twice, and counts once[/]");
        foreach (var no in c.Unusable)
            screen.Line($"  [dim]'{Screen.Safe(no)}' is no serial[/]");
        foreach (var booked in answer.Booked)
            screen.Line($"  {(booked.Asks ? "[bold]?[/]" : " ")} {Screen.Safe(booked.Says)}");
    }

    public static string Many(HolderKind kind) =>
        kind switch
        {
            HolderKind.Depot => "depots",
            HolderKind.Engineer => "people on the way",
            HolderKind.Bay => "machines",
            HolderKind.Customer => "customers",
            HolderKind.Carrier => "carriers",
            HolderKind.Maker => "makers",
            HolderKind.Van => "vans",
            HolderKind.Destroyed => "destroyed",
            _ => "lost",
        };

    private static void Listed(Screen screen, string title, IReadOnlyList<StoredPart> parts, string none)
    {
        Section(screen, title, parts.Count, none);
        if (parts.Count > 0)
            Parts(screen, [.. parts.Take(Few)], none);
        if (parts.Count > Few)
            screen.Line($"[dim]and {parts.Count - Few} more; --json has all[/]");
    }

    private static void Section(Screen screen, string title, int count, string none) =>
        screen.Line(count == 0 ? $"[bold]{title}[/]  [dim]{none}[/]" : $"[bold]{title}[/]");

    private static string Where(Holder holder) =>
        holder.Kind == HolderKind.Depot && holder.Shelf is { } shelf ? $"{holder.Name} {shelf}" : holder.ToString();

    private static string Also(StoredPart p) =>
        string.Join(
            "; ",
            new[]
            {
                p.ReservedFor is { } ticket ? $"for {TicketNumber.Text(ticket)}" : null,
                p.Going is { } going
                    ? $"to {going}{(p.DueBy is { } due ? $", due {due.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}" : "")}"
                    : null,
                p.Apart is { } apart ? Words.Of(apart).Replace('-', ' ') : null,
                p.UnwipedFrom is { } machine && p.Holder.Kind != HolderKind.Bay ? $"data of {machine}" : null,
            }.OfType<string>()
        );
}
