using Nailcrow.Core.Terms;

namespace Nailcrow.Core.People.SigningIn;

/// <summary>Somebody whom a provider of sign-ins has let in, as it tells of them (OpenID Connect Core 1.0, sections 2 and 5.1).</summary>
/// <param name="Issuer">The provider, as it calls itself.</param>
/// <param name="Provider">The same, as people call it.</param>
/// <param name="Subject">Whom it means: never given to anybody else there, unlike a name or an address.</param>
/// <param name="Name">What they are called there to sign in; null where it does not say.</param>
/// <param name="Groups">What they belong to there, as the claim has it that roles come from.</param>
public sealed record ToldElsewhere(
    string Issuer,
    string Provider,
    string Subject,
    string? Name,
    string? FullName,
    string? Mail,
    IReadOnlyList<string> Groups
)
{
    /// <summary>As long as a subject may be (OpenID Connect Core 1.0, section 2).</summary>
    public const int LongestSubject = 255;

    /// <summary>What they would sign in with here: the part before an address's sign, in lower case.</summary>
    public string NameHere => (Name ?? "").Split('@')[0].ToLowerInvariant();

    /// <summary>What they are called here: as it says, where that is a name.</summary>
    public string FullNameHere => SigningIn.FullName.Parse(FullName).Is(out var full, out _) ? full : NameHere;
}

/// <summary>What a provider's groups are as roles.</summary>
/// <param name="groups">By the provider's word, whatever its case. None: each role is called there as it is here.</param>
public sealed class RolesElsewhere(IReadOnlyDictionary<string, Role> groups)
{
    private readonly Dictionary<string, Role> _groups = new(
        groups.Count > 0 ? groups : Enum.GetValues<Role>().ToDictionary(role => Words.Of(role)),
        StringComparer.OrdinalIgnoreCase
    );

    /// <returns>In the order of the roles, each once; groups that mean nothing here are left out.</returns>
    public IReadOnlyList<Role> Of(IEnumerable<string> said) =>
        [.. said.Where(_groups.ContainsKey).Select(group => _groups[group]).Distinct().Order()];
}
