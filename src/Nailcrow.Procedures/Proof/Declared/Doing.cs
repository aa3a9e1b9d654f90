using Nailcrow.Core.Procedures;

namespace Nailcrow.Procedures.Proof.Declared;

/// <summary>What a sentence may have somebody do to a drive.</summary>
internal enum Doing
{
    /// <summary>It leaves its place.</summary>
    Out,

    /// <summary>It goes into a place.</summary>
    In,

    /// <summary>What is on it is lost.</summary>
    Empties,
}

internal static class Declarations
{
    /// <summary>What a step may record of a drive that is moved or emptied by it.</summary>
    private static readonly Records[] Moving =
    [
        Records.DrawnOut,
        Records.Unseated,
        Records.Withdrawn,
        Records.Pulled,
        Records.PutBack,
        Records.CarrierOff,
        Records.Inserted,
        Records.Reseated,
        Records.RebuildStarted,
        Records.OldDataCleared,
    ];

    /// <summary>Whether it says what happens to the drives it names: it records, erases, reads, or moves nothing.</summary>
    public static bool SaysWhatHappens(ProcedureStep step) =>
        step.MovesNothing || Moves(step) || step.Step is { Records: not null } or { Gate: not null } or { Against: not null };

    public static bool Moves(ProcedureStep step) => step.Step.Erases || (step.Step.Records is { } records && Moving.Contains(records));

    /// <summary>Whether the step declares that its own sentence does this.</summary>
    public static bool Covers(ProcedureStep step, Doing doing, IReadOnlyList<string> sentence) =>
        (doing, step.Step.Records) switch
        {
            (Doing.Empties, _) => step.Step.Erases,
            (Doing.Out, Records.DrawnOut or Records.Unseated or Records.Withdrawn) => true,
            (Doing.In, Records.Inserted or Records.Reseated or Records.PutBack) => true,
            // It leaves its carrier and is moved to another one; that is out of no bay and into none.
            (_, Records.CarrierOff) => sentence.Any(w => w is "carrier" or "{carrier}" or "tray" or "sled" or "caddy"),
            _ => false,
        };

    public static string HowTo(Doing doing) =>
        doing switch
        {
            Doing.Out => "declare the drive that leaves its bay ('records: drawn-out', 'unseated' or 'withdrawn' for the new one)",
            Doing.In => "declare the drive that goes in ('records: inserted', 'reseated' or 'put-back')",
            _ => "declare what is emptied ('erases: yes')",
        };
}
