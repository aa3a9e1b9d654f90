using Nailcrow.Core.Intake;

namespace Nailcrow.Client.Intake;

/// <summary>A fault, as a person reports it.</summary>
/// <param name="Asset">The appliance's asset number.</param>
/// <param name="Array">The array a drive is added for, where the machine has several.</param>
/// <param name="At">When it was reported, where that is written down later. Left out: now.</param>
/// <param name="Id">UUIDv7 made by the sender; sending it again is sending it once.</param>
public sealed record FaultAsk(
    string Asset,
    string Symptom,
    JobKind Job = JobKind.Fault,
    string? Bay = null,
    string? Serial = null,
    DateTimeOffset? Since = null,
    Guid? Id = null,
    DateTimeOffset? At = null,
    string? Array = null
);
