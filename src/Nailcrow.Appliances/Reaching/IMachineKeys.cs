using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;

namespace Nailcrow.Appliances.Reaching;

/// <summary>What opens machines to us.</summary>
public interface IMachineKeys
{
    Task<MachineKey> OfAsync(Appliance appliance, Uri address, CancellationToken ct);

    /// <summary>A machine showed a certificate that nobody has looked at; somebody may say yes to it now.</summary>
    Task OfferedAsync(Appliance appliance, Uri address, ShownCertificate certificate, CancellationToken ct);

    /// <summary>It shows one that is known again: the one that waited for a yes was of another machine, or for a while.</summary>
    Task KnownAgainAsync(Appliance appliance, CancellationToken ct);
}

/// <summary>What opens one machine.</summary>
/// <param name="Name">Whom to sign in as; null where nobody said that it asks.</param>
/// <param name="Version">Another one after each change: a session begun with an older one is not gone on with.</param>
/// <param name="Trusted">SHA-256 of the certificate somebody said yes to; null to take only what this machine trusts by itself.</param>
/// <param name="Waits">Whether another certificate waits for somebody's yes.</param>
/// <param name="Problem">Why the sign-in that is kept is not used, as a sentence; null where it is.</param>
public sealed record MachineKey(
    string? Name = null,
    string? Secret = null,
    SignInWay Way = SignInWay.Session,
    string Version = "",
    string? Trusted = null,
    string? Problem = null,
    bool Waits = false
)
{
    // A secret is in no log by accident.
    public override string ToString() => $"{nameof(MachineKey)} of {Name ?? "nobody"}";
}

/// <summary>Where nothing is kept: machines are asked as anybody, and shown certificates are looked at by nobody.</summary>
public sealed class NoMachineKeys : IMachineKeys
{
    public Task<MachineKey> OfAsync(Appliance appliance, Uri address, CancellationToken ct) => Task.FromResult(new MachineKey());

    public Task OfferedAsync(Appliance appliance, Uri address, ShownCertificate certificate, CancellationToken ct) => Task.CompletedTask;

    public Task KnownAgainAsync(Appliance appliance, CancellationToken ct) => Task.CompletedTask;
}
