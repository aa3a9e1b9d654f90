namespace Nailcrow.Appliances;

/// <summary>How patient Nailcrow is with a machine's management interface.</summary>
public sealed record LinkSettings
{
    /// <summary>One call. Default 5 seconds: management processors answer in one or two, more is a hang.</summary>
    public TimeSpan CallDeadline { get; init; } = TimeSpan.FromSeconds(5);

    /// <summary>A whole look, some 20 calls. Default 20 seconds: an engineer at the machine waits for it.</summary>
    public TimeSpan LookDeadline { get; init; } = TimeSpan.FromSeconds(20);

    /// <summary>Largest answer to one call, in bytes. Default 4 MiB: an expanded list of 106 drives has 400 kB.</summary>
    public int MostBytes { get; init; } = 4 * 1024 * 1024;

    /// <summary>The folder with machines' secrets, a file each. Default none: they are kept encrypted with the rest.</summary>
    public string? SecretFiles { get; init; }

    /// <summary>Networks in which a management address may lie, as 10.0.0.0/8. Default none: everywhere but link-local,
    /// multicast and unspecified addresses, and the service's own ports.</summary>
    public IReadOnlyList<string> AllowedNetworks { get; init; } = [];
}
