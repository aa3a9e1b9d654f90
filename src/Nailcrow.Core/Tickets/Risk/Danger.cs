using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets.Risk;

/// <summary>How bad it is: what the array can still lose, and what else in it is not well.</summary>
/// <param name="Margin">Of the array at stake; null where nothing is known of it.</param>
/// <param name="Doubts">What contradicts what, or is not known: the margin is the most cautious that fits it.</param>
/// <param name="Seen">Who took the look all this is reckoned from, and on which ticket.</param>
/// <param name="AtWorst">The margin if every suspect member of that array is lost as well.</param>
public sealed record Danger(
    int? Margin,
    int? AtWorst,
    string? Array,
    SwapHelp Help,
    string Sentence,
    IReadOnlyList<BayVerdict> Verdicts,
    IReadOnlyList<Suspect> Suspects,
    IReadOnlyList<string>? Doubts = null,
    LookTaken? Seen = null
)
{
    public static Danger Of(Ticket ticket)
    {
        if (ticket.Latest is not { } now)
            return WithoutSnapshot(SwapHelping.Of(ticket.Report?.Arrays));
        var verdicts = BayVerdict.ForAll(now);
        var array = AtStake(ticket, now);
        // After the end no rebuild of this ticket reads from anything.
        var suspects = Suspect.Of(now, ticket.IsEnded ? null : array, ticket.Evidence, Target.StillIn(ticket, now));
        if (array is null)
            return new(
                null,
                null,
                null,
                SwapHelp.NotKnown,
                "The reported drive belongs to no array in the last snapshot.",
                verdicts,
                suspects,
                Seen: ticket.LastLook
            );
        var standing = Standing.Of(now, array);
        List<string> doubts = [.. standing.Doubts ?? [], .. SinceItWasOff(ticket, now)];
        return new(
            standing.Margin.Worst,
            AtTheWorst(now, standing, suspects),
            array.Name,
            SwapHelping.Of(array, standing.Margin.Worst),
            Told(array, standing),
            verdicts,
            suspects,
            doubts.Count > 0 ? doubts : null,
            ticket.LastLook
        );
    }

    /// <summary>What was seen before it went off is how it stood then: drives that ran for years may not come back.</summary>
    private static IEnumerable<string> SinceItWasOff(Ticket ticket, Snapshot now) =>
        ticket.Power.LastOrDefault() switch
        {
            { To: null } off => [$"The machine is off since {EntryTold.Clock(off.From)}: this is how it stood before."],
            { To: { } on } when on > now.TakenAt =>
            [
                $"It was switched on again at {EntryTold.Clock(on)}, and nobody has looked since: a drive may not have come back.",
            ],
            _ => [],
        };

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
    internal static DriveArray? AtStake(Ticket ticket, Snapshot now)
    {
        if (now.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array) is { } ofSheet)
            return ofSheet;
        var label = Target.Label(ticket);
        return now.ArrayOf(now.BayLabelled(label))
            ?? now.ArrayOf(Target.LastThat(ticket, s => s.BayLabelled(label) is { Array: not null } bay ? bay : null))
            ?? SwapTarget.Reported(ticket, now)
            ?? now.Arrays.FirstOrDefault(a => !now.IsWhole(a))
            // More space is wanted, and nobody has said yet in which bay; or a bay that is empty is none's.
            ?? ((ticket.OnlyAdds || ticket.Report?.Job == JobKind.Growth) && now.Arrays is [var only] ? only : null);
    }

    private static int AtTheWorst(Snapshot now, Standing standing, IReadOnlyList<Suspect> suspects) =>
        Math.Min(
            standing.Margin.Worst,
            standing.Without([.. suspects.Where(s => s.ReadFrom).Select(s => now.BayLabelled(s.Bay)).OfType<Bay>()]).Worst
        );

    private static string Told(DriveArray array, Standing standing)
    {
        var count = $"{array.Name} is {Words.Of(array.State)}, {standing.Serving} of {array.DesignMembers} members";
        if (Redundancy.Of(array).Bears == 0)
            return standing.IsLost
                ? $"{count}, and it has no redundancy: its data is lost. No swap brings it back; it is rebuilt from nothing and restored."
                : $"{count}, and it has no redundancy: a drive that is pulled takes the data with it.";
        return (standing.Margin.Worst, standing.Margin.Worst < standing.Margin.Best) switch
        {
            (< 0, _) => $"{count}: more drives are lost than it can bear. No swap brings its data back; a lead decides.",
            (0, false) => $"{count}: one more loss and its data is gone.",
            (0, true) => $"{count}: for all that is known, one more loss and its data is gone.",
            var (margin, _) => $"{count}: it can lose {BayVerdict.Drives(margin)} more.",
        };
    }
}
