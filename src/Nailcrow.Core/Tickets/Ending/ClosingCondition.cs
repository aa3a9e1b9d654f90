using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Ending;

/// <summary>One thing that has to be so before a ticket closes, told by name.</summary>
/// <param name="LeadMayWaive">True where a lead may close otherwise in writing; what moved and what contradicts is never waived.</param>
public sealed record ClosingCondition(string Name, bool Met, string Sentence, bool LeadMayWaive)
{
    public static IReadOnlyList<ClosingCondition> Of(Ticket ticket) =>
        [
            new(
                "old serial",
                ticket.OnlyAdds || ticket.Swaps.All(s => s.OutSerial is not null),
                "The serial that came out is not recorded.",
                true
            ),
            new("new serial", ticket.Swaps.All(s => s.InSerial is not null), "The serial that went in is not recorded.", true),
            new("run", ticket.Run is { IsFinished: true, HandedOver: false }, "The run sheet is not at its end.", true),
            new("array whole", WholeAgain(ticket), ArraySentence(ticket), true),
            new("after-snapshot", AfterProblem(ticket) is null, AfterProblem(ticket) ?? "Exactly the intended bay changed.", true),
            new("sign-off", ticket.SignedOffBy is not null, "The customer has not signed off.", true),
            new("light off", !ticket.LocatorOn, "The locator light is still on.", false),
            new(
                "put right",
                ticket.Aside.IsEmpty,
                ticket.Aside.IsEmpty ? "Nothing is moved aside." : $"Moved aside and not back: {string.Join("; ", ticket.Aside)}.",
                false
            ),
            new("discrepancies", !ticket.Discrepancies.Exists(d => d.IsOpen), DiscrepancySentence(ticket), false),
            new(
                "custody",
                CustodyProblem(ticket) is null,
                CustodyProblem(ticket) ?? "Every drive is with a holder who may keep it.",
                false
            ),
        ];

    private static bool WholeAgain(Ticket ticket) =>
        ticket is { Latest: { } latest, Swap: { InSerial: { } serial, InsertedAt: { } inserted } }
        && latest.TakenAt > inserted
        && latest.Holding(serial) is { } bay
        && (
            ticket.Sheet?.ComesBack is ComesBack.SpareSteppedIn or ComesBack.Added
                ? bay.Role == BayRole.Spare
                    && latest.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet.Array) is { } served
                    && latest.IsWhole(served)
                : bay.Role == BayRole.Member && latest.ArrayOf(bay) is { } array && latest.IsWhole(array)
        );

    private static string ArraySentence(Ticket ticket)
    {
        if (ticket.Latest is not { } latest || (ticket.Swap.InsertedAt is { } inserted && latest.TakenAt <= inserted))
            return "No snapshot since the new drive went in shows the array.";
        var array = latest.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array);
        return array is null
            ? "The last snapshot does not show the array."
            : $"{array.Name} is {Words.Of(array.State)} with {latest.MembersOf(array)} of {array.DesignMembers} members.";
    }

    private static string? AfterProblem(Ticket ticket) =>
        ticket.Before is null ? "There is no snapshot from before."
        : ticket.After is null ? "There is no snapshot from after."
        : ticket.Swap.Bay is null ? "No bay is recorded as swapped."
        : SwappedBays.OtherThanMeant(ticket, ticket.Before, ticket.After);

    private static string DiscrepancySentence(Ticket ticket)
    {
        var open = ticket.Discrepancies.Where(d => d.IsOpen).Select(d => $"{d.Sentence} ({d.Id})").ToList();
        return open.Count == 0 ? "None is open." : string.Join(" ", open);
    }

    private static string? CustodyProblem(Ticket ticket)
    {
        var open = ticket.Custody.Open.Select(o => $"{o.Serial} is with {o.Holder}").ToList();
        return open.Count == 0 ? null : $"{string.Join("; ", open)}.";
    }
}
