namespace Nailcrow.Core.Appliances.Reaching;

/// <summary>Where a management interface answers, and what may be sent there.</summary>
public static class MachineAddress
{
    /// <summary>Scheme, host and port: what a sign-in and a certificate belong to, whatever path is asked.</summary>
    public static string Origin(Uri address) => address.GetLeftPart(UriPartial.Authority);

    /// <summary>Why a secret is not sent to an address; null where it may be.</summary>
    public static string? ProblemOfSecrets(Uri address) =>
        address.Scheme == Uri.UriSchemeHttps || address.IsLoopback
            ? null
            : $"A secret sent to {Origin(address)} could be read on the way; put the machine's address right to https first.";

    /// <summary>What is wrong with an address, as the end of a sentence about its machine; null where it can be asked there.</summary>
    public static string? Problem(string address) =>
        !Uri.TryCreate(address, UriKind.Absolute, out var url) || url.Scheme is not ("http" or "https")
            ? $"has the address '{address}'; write one like https://10.0.0.7."
        : url.UserInfo.Length > 0 ? "has a name or a secret in its address; those are given apart, and kept encrypted."
        : null;
}
