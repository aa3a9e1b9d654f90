using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace Nailcrow.Appliances;

/// <summary>How machines answer, for whoever watches from outside (names as OpenTelemetry's conventions have them, times in seconds).</summary>
internal static class Measures
{
    private static readonly Meter Meter = new("Nailcrow.Appliances");

    private static readonly Histogram<double> Asked = Meter.CreateHistogram<double>(
        "nailcrow.machine.asked.duration",
        "s",
        "A machine asked, by what came of it: answered, or silent."
    );

    public static void MachineAsked(long begun, bool answered)
    {
        if (Asked.Enabled)
            Asked.Record(
                Stopwatch.GetElapsedTime(begun).TotalSeconds,
                new KeyValuePair<string, object?>("answer", answered ? "answered" : "silent")
            );
    }
}
