using Nailcrow.Core.Appliances.Reaching;

namespace Nailcrow.Client.Appliances;

/// <summary>How a machine is come into.</summary>
/// <param name="Address">Where its management interface answers; null where nobody reaches it.</param>
/// <param name="SignIn">Null where it is asked as anybody.</param>
/// <param name="Trusted">The certificate somebody said yes to; null where nobody had to.</param>
/// <param name="Offered">One it showed, that waits for somebody's yes.</param>
public sealed record MachineAccessView(
    string Asset,
    string? Address,
    MachineSignInView? SignIn,
    TrustedCertificateView? Trusted,
    OfferedCertificateView? Offered
);

/// <summary>Machines that showed a certificate which waits for somebody's yes.</summary>
/// <param name="Next">Pass as <c>after</c> for the next page; null at the end.</param>
public sealed record WaitingMachines(IReadOnlyList<string> Assets, string? Next);

/// <summary>Whom one signs in as. The secret is shown to nobody.</summary>
/// <param name="SecretFile">The file it is read from; null where it is kept encrypted.</param>
public sealed record MachineSignInView(string Name, SignInWay Way, string? SecretFile, string By, DateTimeOffset At);

/// <param name="Pairs">The SHA-256 as a machine's own screen writes it: 32 pairs with colons.</param>
public sealed record TrustedCertificateView(ShownCertificate Certificate, string Pairs, string By, DateTimeOffset At);

/// <param name="Pairs">The SHA-256 as a machine's own screen writes it: 32 pairs with colons.</param>
public sealed record OfferedCertificateView(ShownCertificate Certificate, string Pairs, DateTimeOffset At);

/// <summary>Whom to sign in as at a machine.</summary>
/// <param name="Secret">1 to 200 characters; null where it is in a file.</param>
/// <param name="SecretFile">A file in the folder that whoever runs the service named for secrets.</param>
public sealed record MachineSignInAsk(string Name, SignInWay Way, string? Secret = null, string? SecretFile = null);

/// <param name="Sha256">The fingerprint that was looked at, with or without colons.</param>
public sealed record TrustAsk(string Sha256);

/// <summary>What trying to reach a machine came to, step by step.</summary>
/// <param name="Ok">Whether it was read to its end.</param>
public sealed record Trial(string Asset, bool Ok, IReadOnlyList<TrialStep> Steps);
