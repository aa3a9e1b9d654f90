using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.Host;

/// <summary>A provider of sign-ins, from the section "Nailcrow:Elsewhere".</summary>
public sealed record ElsewhereSettings
{
    private const string Section = "Nailcrow:Elsewhere";

    private const int LongestName = 40;

    /// <summary>Where it is, as it calls itself: https://sign-in.firm.example. What else is to be known of it, it tells beneath
    /// (OpenID Connect Discovery 1.0). Plain http only on this machine.</summary>
    public string Issuer { get; init; } = "";

    /// <summary>What it calls this service.</summary>
    public string ClientId { get; init; } = "";

    /// <summary>A file with the secret it gave to this service; null where it gave none.</summary>
    public string? SecretFile { get; init; }

    /// <summary>What people call it: "Sign in with ..." is what they read. Default: the issuer's host.</summary>
    public string? Name { get; init; }

    /// <summary>The claim that says what somebody belongs to. Default roles.</summary>
    public string RolesClaim { get; init; } = "roles";

    /// <summary>What each group is here: <c>Roles:tide-crew=engineer</c>. Default: the roles' own names.</summary>
    public IReadOnlyDictionary<string, string> Roles { get; init; } = new Dictionary<string, string>();

    /// <summary>What is asked for beside openid, profile and email, such as a scope that has groups told. Default none.</summary>
    public IReadOnlyList<string> Scopes { get; init; } = [];

    /// <summary>How long its answers are waited for, in seconds. Default 10, 1 to 300.</summary>
    public double AnswerWithinSeconds { get; init; } = 10;

    public string NameTold => Name ?? new Uri(Issuer).Host;

    public IReadOnlyDictionary<string, Role> RoleOf() =>
        Roles.ToDictionary(
            group => group.Key,
            group => Words.Parse<Role>(group.Value, "role") is Parsed<Role>.Ok(var role) ? role : default
        );

    public string? Secret() => SecretFile is { } file ? File.ReadAllText(file).Trim() : null;

    // Read at the start, since it is wanted with the first call of anybody.
    private string? SecretProblem()
    {
        try
        {
            return Secret() is "" ? $"{Section}:SecretFile is '{Path.GetFullPath(SecretFile ?? "")}', which has nothing in it." : null;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or ArgumentException)
        {
            return $"{Section}:SecretFile is '{SecretFile}', which is no file that can be read: {e.Message}";
        }
    }

    /// <summary>All faults at once, each as a sentence.</summary>
    public IEnumerable<string> Problems()
    {
        if (
            !Uri.TryCreate(Issuer, UriKind.Absolute, out var uri) || !(uri.Scheme == "https" || uri is { Scheme: "http", IsLoopback: true })
        )
            yield return $"{Section}:Issuer is '{Issuer}'; write one like https://sign-in.firm.example.";
        if (ClientId.Length == 0)
            yield return $"{Section}:ClientId is not set: what the provider calls this service.";
        if (SecretProblem() is { } noSecret)
            yield return noSecret;
        if (Name is { } name && (name.Trim().Length is 0 or > LongestName || Visible.Text(name) != name))
            yield return $"{Section}:Name has 1 to {LongestName} characters that can be seen.";
        if (AnswerWithinSeconds is not (>= 1 and <= 300))
            yield return $"{Section}:AnswerWithinSeconds is {AnswerWithinSeconds}; accepted: 1 to 300.";
        if (RolesClaim.Length == 0)
            yield return $"{Section}:RolesClaim is empty; the default is roles.";
        foreach (var (group, word) in Roles)
            if (!Words.Parse<Role>(word, "role").Is(out _, out var noRole))
                yield return $"{Section}:Roles:{group}: {noRole}";
    }
}
