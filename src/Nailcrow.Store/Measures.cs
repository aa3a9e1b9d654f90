using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace Nailcrow.Store;

/// <summary>
/// What is counted and timed where the record is kept, for whoever watches from outside; costs nothing where nobody does. Names and units are
/// as OpenTelemetry's conventions have them (opentelemetry.io/docs/specs/semconv), times in seconds.
/// </summary>
internal static class Measures
{
    private static readonly Meter Meter = new("Nailcrow.Store");

    private static readonly ActivitySource Source = new("Nailcrow.Store");

    /// <summary>Entries that are on disk.</summary>
    public static readonly Counter<long> Entries = Meter.CreateCounter<long>("nailcrow.journal.entries", "{entry}", "Entries written.");

    /// <summary>One transaction of entries with its flush; how many there were is its count.</summary>
    public static readonly Histogram<double> Turn = Seconds("nailcrow.journal.turn.duration", "A transaction of entries, with its flush.");

    /// <summary>From when somebody handed an entry over until it was on disk, or refused.</summary>
    public static readonly Histogram<double> Wait = Seconds("nailcrow.journal.wait.duration", "From an entry handed over to its answer.");

    public static readonly UpDownCounter<long> Waiting = Meter.CreateUpDownCounter<long>(
        "nailcrow.journal.waiting",
        "{entry}",
        "Entries that wait to be written."
    );

    public static readonly Histogram<double> Fold = Seconds(
        "nailcrow.fold.duration",
        "Reading a ticket's entries and making the ticket of them."
    );

    /// <summary>Leases that this node has, by their work.</summary>
    public static readonly UpDownCounter<long> Held = Meter.CreateUpDownCounter<long>(
        "nailcrow.work.held",
        "{work}",
        "Work this node does for all."
    );

    public static readonly Counter<long> Taken = Meter.CreateCounter<long>("nailcrow.work.taken", "{work}", "Work that this node took.");

    /// <summary>By what happened: many refused sign-ins at once are somebody who guesses.</summary>
    public static readonly Counter<long> Security = Meter.CreateCounter<long>(
        "nailcrow.security.lines",
        "{line}",
        "Lines of the security log."
    );

    public static KeyValuePair<string, object?> Of(string name, object value) => new(name, value);

    /// <summary>A turn of the journal in a trace of its own: it serves many who asked, and belongs to none of them.</summary>
    public static Activity? BeginTurn() =>
        Source.HasListeners() ? Source.StartActivity(ActivityKind.Internal, default(ActivityContext), name: "journal turn") : null;

    public static long Now => Turn.Enabled || Fold.Enabled ? Stopwatch.GetTimestamp() : 0;

    public static void Since(this Histogram<double> times, long begun)
    {
        if (begun > 0)
            times.Record(Stopwatch.GetElapsedTime(begun).TotalSeconds);
    }

    private static Histogram<double> Seconds(string name, string description) => Meter.CreateHistogram<double>(name, "s", description);
}
