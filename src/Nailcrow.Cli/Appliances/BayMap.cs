using Nailcrow.Cli.Shell;
using Nailcrow.Core;
using Nailcrow.Core.Appliances;

namespace Nailcrow.Cli.Appliances;

/// <summary>The chassis as one stands before it, each bay a cell: its label, what it is, the end of its serial.</summary>
internal static class BayMap
{
    private const int Wide = 17; // "  faulted dropped"

    /// <param name="target">The bay the ticket is about; it is framed twice as heavy.</param>
    public static void Draw(Screen screen, Snapshot snapshot, IReadOnlyList<BayVerdict> verdicts, ApplianceModel? model, string? target)
    {
        if (model is null || Enumerable.Range(0, model.Bays).Any(i => snapshot.BayLabelled(model.LabelAt(i / model.Columns, i % model.Columns)) is null))
            List(screen, snapshot, verdicts);
        else
            Chassis(screen, snapshot, verdicts, model, target);
        foreach (var array in snapshot.Arrays)
            screen.Line($"  {Screen.Safe(array.Name)}: {Words.Of(array.Level)}, [bold]{Words.Of(array.State)}[/], {snapshot.MembersOf(array)} of {array.DesignMembers} members, margin {Margin.Of(snapshot, array)}");
        screen.Line($"  [dim]seen {snapshot.TakenAt.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC by {Screen.Safe(snapshot.Source)}.  pulling now:  . safe   - thins   X fatal[/]");
    }

    private static void Chassis(Screen screen, Snapshot snapshot, IReadOnlyList<BayVerdict> verdicts, ApplianceModel model, string? target)
    {
        var edge = new string('─', Wide);
        screen.Line($"  ┌{string.Join("┬", Enumerable.Repeat(edge, model.Columns))}┐");
        for (var row = 0; row < model.Rows; row++)
        {
            var bays = Enumerable.Range(0, model.Columns).Select(column => snapshot.BayLabelled(model.LabelAt(row, column))!).ToList(); // Draw saw that each is there
            screen.Line($"  │{string.Join("│", bays.Select(b => Head(b, verdicts, b.Label == target)))}│");
            screen.Line($"  │{string.Join("│", bays.Select(b => Cell($"  {Role(b)}", b.Label == target)))}│");
            screen.Line($"  │{string.Join("│", bays.Select(b => Cell($"  {End(b.Serial)}", b.Label == target)))}│");
            screen.Line(row < model.Rows - 1 ? $"  ├{string.Join("┼", Enumerable.Repeat(edge, model.Columns))}┤" : $"  └{string.Join("┴", Enumerable.Repeat(edge, model.Columns))}┘");
        }
    }

    private static string Head(Bay bay, IReadOnlyList<BayVerdict> verdicts, bool isTarget)
    {
        var sign = verdicts.FirstOrDefault(v => v.Bay == bay.Label)?.Verdict switch { PullVerdict.Fatal => 'X', PullVerdict.Thins => '-', _ => bay.Serial is null ? ' ' : '.' };
        return Cell($"{(isTarget ? "►" : " ")}{bay.Label,-4}{bay.Name,-11}{sign}", isTarget);
    }

    private static string Cell(string text, bool isTarget)
    {
        var fitted = Screen.Safe(text.Length > Wide ? text[..Wide] : text.PadRight(Wide));
        return isTarget ? $"[invert]{fitted}[/]" : fitted;
    }

    /// <summary>What the array makes of it; health is said as well where it is not good.</summary>
    private static string Role(Bay bay) =>
        bay.Health is DriveHealth.Faulted or DriveHealth.Worn ? $"{Words.Of(bay.Health)} {Words.Of(bay.Role)}" : Words.Of(bay.Role);

    private static string End(string? serial) => serial is null ? "" : serial.Length <= Wide - 2 ? serial : $"…{serial[^(Wide - 3)..]}";

    private static void List(Screen screen, Snapshot snapshot, IReadOnlyList<BayVerdict> verdicts) =>
        screen.Table(["bay", "name", "role", "health", "serial", "array", "pulling it"], snapshot.Bays.Select(b => new[]
        {
            $"[bold]{Screen.Safe(b.Label)}[/]", Screen.Safe(b.Name), Words.Of(b.Role), Words.Of(b.Health), Screen.Safe(b.Serial), Screen.Safe(b.Array),
            Screen.Safe(verdicts.FirstOrDefault(v => v.Bay == b.Label) is { } v ? $"{Words.Of(v.Verdict)}: {v.Reason}" : ""),
        }));
}
