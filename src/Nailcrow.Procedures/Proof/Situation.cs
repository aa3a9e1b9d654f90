namespace Nailcrow.Procedures.Proof;

/// <summary>What is known to be so at one point of a path, as far as a safety rule or a gate asks for it.</summary>
[Flags]
internal enum Known : uint
{
    Nothing = 0,
    BackupAsked = 1 << 0,
    SnapshotBefore = 1 << 1,
    NotRebuilding = 1 << 2,
    NotFatal = 1 << 3,
    GoAhead = 1 << 4,
    Released = 1 << 5,
    Machine = 1 << 6,
    Bay = 1 << 7,
    DriveOut = 1 << 8,
    RightDrive = 1 << 9,
    WrongDrive = 1 << 10,
    Waited = 1 << 11,
    WentBack = 1 << 12,
    NewIn = 1 << 13,
    NewSeen = 1 << 14,
    Started = 1 << 15,
    RebuildSeen = 1 << 16,
    Whole = 1 << 17,
    SpareBack = 1 << 18,
    AllGood = 1 << 19,
    Restored = 1 << 20,
    SeenAgain = 1 << 21,
    SnapshotAfter = 1 << 22,
    AsBefore = 1 << 23,

    /// <summary>A wrong drive was pulled, and every mark there is had spoken for it.</summary>
    NoMarkLeft = 1 << 24,

    /// <summary>One stands at a call that was made from a gate which is shut against the pull.</summary>
    AskedAtGate = 1 << 25,

    /// <summary>What is about one drive only, and begins anew with the next.</summary>
    OfOneDrive =
        NotRebuilding
        | NotFatal
        | GoAhead
        | Released
        | Bay
        | DriveOut
        | RightDrive
        | WrongDrive
        | Waited
        | WentBack
        | NewIn
        | NewSeen
        | Started
        | RebuildSeen
        | Whole
        | SpareBack
        | SnapshotAfter
        | AsBefore
        | NoMarkLeft,

    /// <summary>What a pull uses up: the next one has to establish it again.</summary>
    UsedByPull = NotRebuilding | NotFatal | GoAhead | Bay | Waited | AsBefore | SnapshotAfter,
}

/// <param name="Open">The things that are open, on or slid out, each a bit.</param>
/// <param name="MachineMarks">Marks that said "this machine", each a bit; from the second on, more of them change nothing.</param>
/// <param name="BayMarks">Marks that said "this bay", in this attempt; likewise.</param>
internal readonly record struct Situation(Known Known, ulong Open = 0, uint MachineMarks = 0, uint BayMarks = 0)
{
    public bool Has(Known what) => (Known & what) == what;

    public Situation With(Known what) => this with { Known = Known | what };

    public Situation Without(Known what) => this with { Known = Known & ~what };

    public Situation ForNextDrive() => Without(Known.OfOneDrive) with { BayMarks = 0 };
}
