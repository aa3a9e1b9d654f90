using System.Diagnostics.Metrics;

namespace Nailcrow.Service.Host.Seen;

/// <summary>What is counted at the service's doors, for whoever watches from outside.</summary>
internal static class Measures
{
    public static readonly Meter Meter = new("Nailcrow.Service");

    public static readonly UpDownCounter<long> Streams = Meter.CreateUpDownCounter<long>(
        "nailcrow.stream.open",
        "{stream}",
        "Consoles and commands that listen to the journal."
    );
}
