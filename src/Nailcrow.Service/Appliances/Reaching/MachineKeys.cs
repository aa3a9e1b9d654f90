using Nailcrow.Appliances.Reaching;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Appliances.Reaching;

/// <summary>Opens machines with what is kept for them; no secret goes where it was not given for.</summary>
internal sealed class MachineKeys(MachineAccesses accesses, SecretFiles files) : IMachineKeys
{
    public async Task<MachineKey> OfAsync(Appliance appliance, Uri address, CancellationToken ct)
    {
        if (await accesses.OpenAsync(appliance.Asset, ct) is not { } opened)
            return new();
        var trusted = address.Scheme == Uri.UriSchemeHttps ? opened.Access.Trusted?.Certificate.Sha256 : null;
        if (opened.Access.SignIn is not { } signIn)
            return new(Trusted: trusted, Waits: opened.Access.Offered is not null);
        var secret = signIn.SecretFile is { } file ? files.Read(file) : opened.Secret;
        return new(
            signIn.Name,
            secret,
            signIn.Way,
            // A file's secret may be another one tomorrow.
            signIn.SecretFile
                is null
                ? opened.Stamp
                : $"{opened.Stamp}{secret?.GetHashCode(StringComparison.Ordinal)}",
            trusted,
            Problem(signIn, address, trusted, secret),
            opened.Access.Offered is not null
        );
    }

    public Task OfferedAsync(Appliance appliance, Uri address, ShownCertificate certificate, CancellationToken ct) =>
        accesses.OfferAsync(appliance.Asset, certificate, ct);

    public Task KnownAgainAsync(Appliance appliance, CancellationToken ct) => accesses.OfferNoMoreAsync(appliance.Asset, ct);

    private static string? Problem(MachineSignIn signIn, Uri address, string? trusted, string? secret) =>
        // Whoever may put an address right may not have what is sent there. With its certificate known it is the same machine, moved.
        trusted is null
        && MachineAddress.Origin(address) != signIn.Origin
            ? $"is not signed in to: its sign-in was given for {signIn.Origin}; give it anew for where it is now."
        : MachineAddress.ProblemOfSecrets(address) is { } open ? $"is not signed in to: {open}"
        : secret is not null ? null
        : signIn.SecretFile is { } file ? $"is not signed in to: its secret is in the file '{file}', which cannot be read."
        : "is not signed in to: its secret was kept under keys that are gone; give it anew.";
}
