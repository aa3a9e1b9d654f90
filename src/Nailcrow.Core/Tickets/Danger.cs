using Nailcrow.Core.Appliances;

namespace Nailcrow.Core.Tickets;

/// <summary>How bad it is: what the array can still lose, and what else in it is not well.</summary>
/// <param name="Margin">Of the array at stake; null where nothing is known of it.</param>
public sealed record Danger(int? Margin, string? Array, string Sentence, IReadOnlyList<BayVerdict> Verdicts, IReadOnlyList<string> Suspects)
{
    public static Danger Of(Ticket ticket)
    {
        if (ticket.Latest is not { } now)
            return new(null, null, "Nothing is known of the bays yet; take a snapshot.", [], []);
        var verdicts = BayVerdict.ForAll(now);
        var array = AtStake(ticket, now);
        if (array is null)
            return new(null, null, "The reported drive belongs to no array in the last snapshot.", verdicts, Suspected(ticket, now, null));
        var margin = Appliances.Margin.Of(now, array);
        return new(margin, array.Name, Told(array, now, margin), verdicts, Suspected(ticket, now, array));
    }

    /// <summary>The array of the sheet, of the reported drive, or of the first that is not whole.</summary>
    private static DriveArray? AtStake(Ticket ticket, Snapshot now) =>
        now.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array)
        ?? now.ArrayOf(now.Holding(ticket.Report?.Serial) ?? now.BayLabelled(ticket.Report?.Bay))
        ?? now.Arrays.FirstOrDefault(a => !now.IsWhole(a));

    private static string Told(DriveArray array, Snapshot now, int margin)
    {
        var count = $"{array.Name} is {Words.Of(array.State)}, {now.MembersOf(array)} of {array.DesignMembers} members";
        return margin switch
        {
            < 0 => $"{count}: more drives are lost than it can bear. No swap brings its data back; a lead decides.",
            0 => $"{count}: one more loss and its data is gone.",
            _ => $"{count}: it can lose {BayVerdict.Drives(margin)} more.",
        };
    }

    private static IReadOnlyList<string> Suspected(Ticket ticket, Snapshot now, DriveArray? array) =>
        [
            .. now.Bays.Where(b => b.Health is DriveHealth.Worn or DriveHealth.Faulted && b.Serial is not null && b.Label != now.Holding(ticket.Sheet?.TargetSerial ?? ticket.Report?.Serial)?.Label)
                .OrderByDescending(b => b.Health == DriveHealth.Faulted)
                .Select(b => Suspect(b, array)),
        ];

    private static string Suspect(Bay bay, DriveArray? array)
    {
        var source = array is not null && bay.Array == array.Name && bay.Role == BayRole.Member ? " The rebuild reads from it: backup first." : "";
        var signs = bay.Signs is [_, ..] ? $": {string.Join(", ", bay.Signs)}" : "";
        return $"Bay {bay.Label} ({bay.Serial}) is {Words.Of(bay.Health)}{signs}.{(source.Length > 0 && bay.Health == DriveHealth.Worn ? source : "")}";
    }
}
