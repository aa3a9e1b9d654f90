using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Risk;

/// <summary>How bad it is: what the array can still lose, and what else in it is not well.</summary>
/// <param name="Margin">Of the array at stake; null where nothing is known of it.</param>
/// <param name="AtWorst">The margin if every suspect member of that array is lost as well.</param>
public sealed record Danger(
    int? Margin,
    int? AtWorst,
    string? Array,
    SwapHelp Help,
    string Sentence,
    IReadOnlyList<BayVerdict> Verdicts,
    IReadOnlyList<Suspect> Suspects
)
{
    public static Danger Of(Ticket ticket)
    {
        if (ticket.Latest is not { } now)
            return WithoutSnapshot(SwapHelping.Of(ticket.Report?.Arrays));
        var verdicts = BayVerdict.ForAll(now);
        var array = AtStake(ticket, now);
        var suspects = Suspect.Of(now, array, ticket.Evidence, Target.StillIn(ticket, now));
        if (array is null)
            return new(
                null,
                null,
                null,
                SwapHelp.NotKnown,
                "The reported drive belongs to no array in the last snapshot.",
                verdicts,
                suspects
            );
        var margin = Appliances.Arrays.Margin.Of(now, array);
        return new(
            margin,
            AtTheWorst(now, array, margin, suspects),
            array.Name,
            SwapHelping.Of(array, margin),
            Told(array, now, margin),
            verdicts,
            suspects
        );
    }

    private static Danger WithoutSnapshot(SwapHelp help) =>
        new(
            null,
            null,
            null,
            help,
            help == SwapHelp.NoRedundancy
                ? "The machine was set up without redundancy: no swap brings its data back. It is rebuilt from nothing and restored."
                : "Nothing is known of the bays yet; take a snapshot.",
            [],
            []
        );

    /// <summary>The array of the sheet, of the reported drive, or of the first that is not whole.</summary>
    private static DriveArray? AtStake(Ticket ticket, Snapshot now) =>
        now.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array)
        ?? now.ArrayOf(Target.Bay(ticket))
        ?? now.Arrays.FirstOrDefault(a => !now.IsWhole(a));

    private static int AtTheWorst(Snapshot now, DriveArray array, int margin, IReadOnlyList<Suspect> suspects)
    {
        var readFrom = suspects.Where(s => s.ReadFrom).Select(s => now.BayLabelled(s.Bay)).OfType<Bay>().ToList();
        return readFrom.Count == 0
            ? margin
            : Math.Min(
                margin,
                Appliances.Arrays.Margin.Without(array, [.. now.Holding(array).Where(b => b.Role == BayRole.Member)], readFrom)
            );
    }

    private static string Told(DriveArray array, Snapshot now, int margin)
    {
        var count = $"{array.Name} is {Words.Of(array.State)}, {now.MembersOf(array)} of {array.DesignMembers} members";
        if (Redundancy.Of(array).Bears == 0)
            return margin < 0
                ? $"{count}, and it has no redundancy: its data is lost. No swap brings it back; it is rebuilt from nothing and restored."
                : $"{count}, and it has no redundancy: a drive that is pulled takes the data with it.";
        return margin switch
        {
            < 0 => $"{count}: more drives are lost than it can bear. No swap brings its data back; a lead decides.",
            0 => $"{count}: one more loss and its data is gone.",
            _ => $"{count}: it can lose {BayVerdict.Drives(margin)} more.",
        };
    }
}
