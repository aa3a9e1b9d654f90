using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Appliances;

/// <summary>The chassis as one stands before it, each bay a cell: its label, what it is, the end of its serial.</summary>
internal static class BayMap
{
    private const int Wide = 17; // "  faulted dropped"
    private const int Narrow = 8; // fourteen of them in a row still fit a wide terminal
    private const int MostWide = 6;

    /// <param name="target">The bay the ticket is about; it is framed twice as heavy.</param>
    public static void Draw(
        Screen screen,
        Snapshot snapshot,
        IReadOnlyList<BayVerdict> verdicts,
        IReadOnlyList<ChassisDrawing>? drawing,
        string? target
    )
    {
        var drawn = drawing?.SelectMany(d => d.Labels()).ToHashSet(StringComparer.OrdinalIgnoreCase) ?? [];
        if (drawing is null || snapshot.Bays.Any(b => !drawn.Contains(b.Label)))
            List(screen, snapshot, verdicts);
        else
            foreach (var enclosure in drawing)
                Chassis(screen, snapshot, verdicts, enclosure, target);
        foreach (var array in snapshot.Arrays)
        {
            var standing = Standing.Of(snapshot, array);
            screen.Line(
                $"  {Screen.Safe(array.Name)}: {Words.Of(array.Level)}, [bold]{Words.Of(array.State)}[/], "
                    + $"{standing.Serving} of {array.DesignMembers} members, margin {standing.Margin.Worst}"
            );
            foreach (var doubt in standing.Doubts)
                screen.Line($"  ! {Screen.Safe(doubt)}");
        }
        screen.Line("  [dim]pulling now:  . safe   - thins   X fatal   ? not known[/]");
        screen.Line($"  [dim]seen {snapshot.TakenAt.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC by {Screen.Safe(snapshot.Source)}[/]");
    }

    private static void Chassis(
        Screen screen,
        Snapshot snapshot,
        IReadOnlyList<BayVerdict> verdicts,
        ChassisDrawing enclosure,
        string? target
    )
    {
        if (enclosure.Enclosure is { } name)
            screen.Line($"  [bold]{Screen.Safe(name)}[/] [dim]{Screen.Safe(enclosure.Model)}[/]");
        var verdictOf = verdicts.ToDictionary(v => v.Bay);
        foreach (var (drawer, nth) in enclosure.Drawers.Select((d, i) => (d, i)))
        {
            if (enclosure.Drawers.Count > 1)
                screen.Line($"  [dim]drawer {nth + 1}[/]");
            Rows(screen, snapshot, verdictOf, drawer, target);
        }
    }

    private static void Rows(
        Screen screen,
        Snapshot snapshot,
        Dictionary<string, BayVerdict> verdicts,
        IReadOnlyList<IReadOnlyList<string>> rows,
        string? target
    )
    {
        var columns = rows[0].Count;
        var width = columns > MostWide ? Narrow : Wide;
        var edge = new string('─', width);
        screen.Line($"  ┌{string.Join("┬", Enumerable.Repeat(edge, columns))}┐");
        foreach (var (row, nth) in rows.Select((r, i) => (r, i)))
        {
            var bays = row.Select(label => label.Length == 0 ? null : snapshot.BayLabelled(label) ?? new Bay(label, BayRole.NotKnown))
                .ToList();
            screen.Line(
                $"  │{string.Join("│", bays.Select(b => b is null ? Cell("", width, false) : Head(b, verdicts, width, b.Label == target)))}│"
            );
            Cells(b => Role(b, width));
            Cells(b => End(b.Serial, width));
            screen.Line(
                nth < rows.Count - 1
                    ? $"  ├{string.Join("┼", Enumerable.Repeat(edge, columns))}┤"
                    : $"  └{string.Join("┴", Enumerable.Repeat(edge, columns))}┘"
            );

            void Cells(Func<Bay, string> says)
            {
                var cells = bays.Select(b =>
                    b is null ? Cell("", width, false) : Cell($"{Indent(width)}{says(b)}", width, b.Label == target)
                );
                screen.Line($"  │{string.Join("│", cells)}│");
            }
        }
    }

    private static string Head(Bay bay, Dictionary<string, BayVerdict> verdicts, int width, bool isTarget)
    {
        var sign = verdicts.GetValueOrDefault(bay.Label)?.Verdict switch
        {
            PullVerdict.Fatal => 'X',
            PullVerdict.Thins => '-',
            PullVerdict.NotKnown => '?',
            null when bay.Role == BayRole.NotKnown => '?', // the snapshot has no such bay
            _ => bay.Serial is null ? ' ' : '.',
        };
        var label = bay.Label.Contains('/') ? bay.Label[(bay.Label.IndexOf('/') + 1)..] : bay.Label;
        return Cell(
            width == Narrow ? $"{(isTarget ? "►" : " ")}{label, -5}{sign}" : $"{(isTarget ? "►" : " ")}{label, -4}{bay.Name, -11}{sign}",
            width,
            isTarget
        );
    }

    private static string Cell(string text, int width, bool isTarget)
    {
        var fitted = Screen.Safe(text.Length > width ? text[..width] : text.PadRight(width));
        return isTarget ? $"[invert]{fitted}[/]" : fitted;
    }

    private static string Indent(int width) => width == Narrow ? " " : "  ";

    /// <summary>What the array makes of it; health is said as well where it is not good.</summary>
    private static string Role(Bay bay, int width) =>
        bay.Health is DriveHealth.Faulted or DriveHealth.Worn
            ? width == Narrow
                ? Words.Of(bay.Health)
                : $"{Words.Of(bay.Health)} {RoleOf(bay)}"
            : RoleOf(bay);

    private static string RoleOf(Bay bay) => Words.Of(bay.Role).Replace('-', ' ');

    private static string End(string? serial, int width) =>
        serial is null ? ""
        : serial.Length <= width - 2 ? serial
        : $"…{serial[^(width - 3)..]}";

    private static void List(Screen screen, Snapshot snapshot, IReadOnlyList<BayVerdict> verdicts) =>
        screen.Table(
            ["bay", "name", "role", "health", "serial", "array", "pulling it"],
            snapshot.Bays.Select(b =>
                new[]
                {
                    $"[bold]{Screen.Safe(b.Label)}[/]",
                    Screen.Safe(b.Name),
                    Words.Of(b.Role),
                    Words.Of(b.Health),
                    Screen.Safe(b.Serial),
                    Screen.Safe(b.Array),
                    Screen.Safe(verdicts.FirstOrDefault(v => v.Bay == b.Label) is { } v ? $"{Words.Of(v.Verdict)}: {v.Reason}" : ""),
                }
            )
        );
}
