using Nailcrow.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Rebuilds;

/// <summary>What a machine's look says of a ticket's rebuild.</summary>
internal static class MachineReading
{
    /// <summary>
    /// Running while the machine shows progress; done when the array is whole with the new drive in it; null when it has not begun.
    /// </summary>
    public static ReadingTaken? Of(MachineLook look, Ticket ticket)
    {
        if (look.Snapshot.Arrays.FirstOrDefault(a => a.Name == ticket.Sheet?.Array) is not { } array)
            return null;
        if (look.Progress.FirstOrDefault(p => p.Array == array.Name) is { } running)
            return new(array.Name, Progress.Running, running.Phase, running.Source, running.Percent);
        if (look.Snapshot.IsWhole(array) && look.Snapshot.Holding(ticket.Swap.InSerial)?.Role == BayRole.Member)
            return new(array.Name, Progress.Done, RebuildPhase.Rebuilding, look.Snapshot.Source);
        return array.State == ArrayState.Failed ? new(array.Name, Progress.Failed, RebuildPhase.Rebuilding, look.Snapshot.Source) : null;
    }
}
