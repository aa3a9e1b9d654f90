namespace Nailcrow.Core.Procedures;

/// <summary>A procedure compiled for one ticket: every condition that was known is settled, every blank filled.</summary>
/// <param name="Version">SHA-256 of the procedure's text and all it is built from, first 12 hex digits: a running ticket keeps what it was given.</param>
/// <param name="TargetSerial">The drive that is to come out; the first one where there are several.</param>
/// <param name="ReadingRules">By which rules a scan is judged; see <see cref="ReadingRulesNow"/>.</param>
/// <param name="WaitSeconds">How long the machine's model wants a bay to be empty; null on sheets from before they told.</param>
/// <param name="Location">Where the machine is looked for; null on sheets from before they told.</param>
/// <param name="Drives">All drives that are to come out, in the order they are done; null on sheets from before there could be several.</param>
public sealed record RunSheet(
    Guid Id,
    string Procedure,
    string Title,
    string Version,
    string Array,
    string TargetBay,
    string TargetSerial,
    string ChassisSerial,
    IReadOnlyList<RunStep> Steps,
    IReadOnlyList<SheetDrive>? Drives = null,
    ComesBack ComesBack = ComesBack.ByRebuild,
    int ReadingRules = 0,
    int? WaitSeconds = null,
    string? Location = null
)
{
    /// <summary>How a scan is judged on sheets that are made now; one that was made earlier keeps the rules it was followed by.</summary>
    public const int ReadingRulesNow = 2;

    /// <summary>From the second rules on a wrong drive's bay is where the hand was, and two marks of one source are one.</summary>
    public bool GoesByTheHand() => ReadingRules >= 2;

    public RunStep? Step(string? id) => Steps.FirstOrDefault(s => s.Id == id);

    /// <summary>The drive a step is about.</summary>
    public SheetDrive DriveOf(RunStep? step) =>
        Drives is [_, ..] drives ? drives[step?.Drive ?? 0] : new(TargetBay, TargetSerial, null, null);

    /// <summary>Brings the machine back to how it was, after which the interrupted sheet goes on.</summary>
    public bool IsRecovery => ComesBack == ComesBack.Unchanged;
}

/// <summary>A drive that is to come out, and what goes into its bay.</summary>
/// <param name="Name">What the machine's software calls it.</param>
public sealed record SheetDrive(string Bay, string Serial, string? Name = null, string? PartSerial = null);
