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

    public IEnumerable<string> Problems()
    {
        foreach (var (name, deadline) in new[] { (nameof(CallDeadline), CallDeadline), (nameof(LookDeadline), LookDeadline) })
            if (deadline < TimeSpan.FromSeconds(1) || deadline > TimeSpan.FromMinutes(10))
                yield return $"Nailcrow:Link:{name} is {deadline}; accepted: 00:00:01 to 00:10:00.";
        if (MostBytes is < 64 * 1024 or > 256 * 1024 * 1024)
            yield return $"Nailcrow:Link:MostBytes is {MostBytes}; accepted: 65536 to 268435456.";
        foreach (var network in AllowedNetworks.Where(n => !System.Net.IPNetwork.TryParse(n, out _)))
            yield return $"Nailcrow:Link:AllowedNetworks has '{network}'; accepted: a network such as 10.0.0.0/8.";
    }
}
