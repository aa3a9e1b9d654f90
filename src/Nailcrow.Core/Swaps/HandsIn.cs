using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>
/// Whether the engineer's hands are in the machine: from the moment a sheet let them pull until a drive went in. What the machine
/// reports meanwhile is first of all what they do.
/// </summary>
public static class HandsIn
{
    // A run that was left at that step for hours has nobody's hands in it, and what fails then is news.
    private static readonly TimeSpan AtMost = TimeSpan.FromHours(1);

    /// <summary>Whether they are in it at this moment.</summary>
    public static bool Are(Ticket ticket, DateTimeOffset now) => Since(ticket) is { } since && now - since < AtMost;

    /// <summary>Since when; null where they are not.</summary>
    public static DateTimeOffset? Since(Ticket ticket)
    {
        if (ticket is not { Run: { IsFinished: false } run, Sheet: { } sheet })
            return null;
        for (var i = run.Visits.Count - 1; i >= 0; i--)
            switch (sheet.Step(run.Visits[i].Step))
            {
                case { Gate: GateFact.PullNotFatal or GateFact.Released } or { Records: Records.Unseated or Records.Withdrawn }:
                    return run.Visits[i].At;
                case { Records: Records.Inserted or Records.Reseated }:
                    return null;
            }
        return null;
    }
}
