using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances;

/// <summary>
/// The one port to a machine. A machine that does not answer, or answers nonsense, is refused with a sentence and says
/// nothing about its drives: no news is never no progress.
/// </summary>
public interface IApplianceLink
{
    Task<Parsed<MachineLook>> LookAsync(Appliance appliance, CancellationToken ct);

    /// <summary>Takes the steps of a look one after the other, and says of each what came of it. It ends with the first that fails.</summary>
    Task<IReadOnlyList<TrialStep>> TryAsync(Appliance appliance, CancellationToken ct);

    /// <summary>Switches the chassis' locator light.</summary>
    /// <returns>The state asked for, once the machine has taken it.</returns>
    Task<Parsed<bool>> SwitchLightAsync(Appliance appliance, bool on, CancellationToken ct);
}
