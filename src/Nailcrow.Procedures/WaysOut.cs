using Nailcrow.Core.Procedures;

namespace Nailcrow.Procedures;

/// <summary>Which steps say what one should see, and so need somewhere to go when it does not come.</summary>
internal static class WaysOut
{
    /// <summary>Looks and scans have their answers, holds pass by themselves, and a call is the way out.</summary>
    public static bool MayHave(RunStep step) => step.Kind is StepKind.Do or StepKind.Light or StepKind.Gate or StepKind.Read;

    public static bool MustHave(RunStep step) => step.Kind == StepKind.Gate || (MayHave(step) && (step.See ?? step.Hear) is not null);
}
