using Nailcrow.Core.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances;

/// <summary>Something a machine said by itself.</summary>
/// <param name="Drive">The software's name of the drive it is about, where it is about one.</param>
/// <param name="Array">The array it is about, where it is about one.</param>
/// <param name="IsBad">False for what is well again.</param>
public sealed record MachineEvent(string Id, DateTimeOffset? At, string Text, string? Drive, string? Array, bool IsBad);

/// <summary>Hearing from machines by themselves: pushed to us, or read from a stream they offer.</summary>
public interface IMachineEvents
{
    /// <summary>Sees to it that the machine pushes its events to a destination; asked again, it renews what the machine forgot.</summary>
    /// <returns>Where the subscription is on the machine.</returns>
    Task<Parsed<string>> SubscribeAsync(Appliance appliance, Uri destination, CancellationToken ct);

    /// <summary>Events as the machine streams them; ends when the stream does. Refused where it offers none.</summary>
    Task<Parsed<IAsyncEnumerable<MachineEvent>>> StreamAsync(Appliance appliance, CancellationToken ct);
}
