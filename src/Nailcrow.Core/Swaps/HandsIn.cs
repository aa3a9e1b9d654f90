using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Swaps;

/// <summary>
/// Whether the engineer's hands are in the machine: from the moment a sheet let them pull until a drive went in. What the machine
/// reports meanwhile is first of all what they do.
/// </summary>
public static class HandsIn
{
    /// <summary>Since when; null where they are not.</summary>
    public static DateTimeOffset? Since(Ticket ticket)
    {
        if (ticket is not { Run: { IsFinished: false } run, Sheet: { } sheet })
            return null;
        for (var i = run.Visits.Count - 1; i >= 0; i--)
            switch (sheet.Step(run.Visits[i].Step))
            {
                case { Gate: GateFact.PullNotFatal or GateFact.Released }:
                    return run.Visits[i].At;
                case { Records: Records.Inserted or Records.Reseated }:
                    return null;
            }
        return null;
    }
}
