using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns.Stores;

namespace Nailcrow.Client.Appliances;

/// <summary>A drive as the firm's list has it, and where the ledger has it, if that knows it.</summary>
/// <param name="With">Who has it, where it is in no machine and lies nowhere to be used.</param>
public sealed record DriveLine(
    string Serial,
    string Model,
    long Bytes,
    string? Asset,
    string? Bay,
    string? Depot,
    int? Hours,
    string? UsedIn,
    string? With = null
);

public sealed record DriveList(IReadOnlyList<DriveLine> Drives);

/// <summary>A drive's whole life.</summary>
/// <param name="Listed">What the list says; null where the drive is only known from tickets.</param>
/// <param name="Places">More than one where records put it in two places.</param>
/// <param name="Warranty">What is known of its warranty, as it goes on after its serial; null where nothing is.</param>
/// <param name="Line">Through whose hands it went, as the ledger of parts has it; null for one that never moved.</param>
public sealed record DriveLifeView(
    string Serial,
    DriveLine? Listed,
    IReadOnlyList<LifeEvent> Events,
    IReadOnlyList<string> Places,
    PartLineView? Line = null,
    string? Warranty = null
);

/// <summary>A snapshot that was kept. Ticket and number of its entry name it.</summary>
public sealed record KeptSnapshotView(long Ticket, long Seq, DateTimeOffset At, string Source, string By);

public sealed record SnapshotList(string Asset, IReadOnlyList<KeptSnapshotView> Snapshots);

/// <summary>Two snapshots of one appliance, held against each other.</summary>
/// <param name="Verdicts">What pulling each bay would have done at the time of the second.</param>
public sealed record SnapshotDifference(
    Snapshot Before,
    Snapshot After,
    IReadOnlyList<BayChange> Changes,
    IReadOnlyList<BayVerdict> Verdicts
);

/// <summary>One bay's label, position and software name, and how the three were found to belong together.</summary>
/// <param name="Confirmed">pull or light: somebody saw it. Null: the machine says so, and nobody has seen it yet.</param>
public sealed record BayMapLine(
    string Bay,
    string? Enclosure,
    int Row,
    int Column,
    string? Name,
    string? Confirmed,
    DateTimeOffset? ConfirmedAt,
    long? Ticket
);

/// <param name="Warning">Set while no bay of it was confirmed, or when two confirmations disagree.</param>
public sealed record BayMapView(string Asset, IReadOnlyList<BayMapLine> Bays, string? Warning);

/// <summary>What an import did, or would do.</summary>
/// <param name="Rows">Rows read, without the head.</param>
/// <param name="Problems">The first of them; <paramref name="Bad"/> counts all.</param>
public sealed record ImportResult(
    string Kind,
    bool DryRun,
    long Rows,
    long Good,
    long Bad,
    long Imported,
    IReadOnlyList<RowProblem> Problems
);

public sealed record RowProblem(long Line, string Reason);
