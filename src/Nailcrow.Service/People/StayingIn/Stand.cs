using System.Security.Claims;
using Nailcrow.Core.Terms;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.StayingIn;

/// <summary>What whoever comes with a session or a key may do at this moment.</summary>
/// <param name="Id">Of the session or the key.</param>
/// <param name="KeyHash">Of a key that a script acts with; null where a person signed in.</param>
/// <param name="MustSetUp">Their roles take a second factor, and they have none: they may set one up, and nothing else.</param>
internal sealed record Stand(Guid Id, string? KeyHash, StandsAs As, bool MustSetUp = false)
{
    public bool Key => KeyHash is not null;

    public string Name => As.Name;

    public string FullName => As.FullName;

    public bool MustChange => As.MustChange;

    public ClaimsPrincipal Principal { get; } =
        new(
            new ClaimsIdentity(
                [new(ClaimTypes.Name, As.Name), .. As.Roles.Select(r => new Claim(ClaimTypes.Role, Words.Of(r)))],
                KeyHash is null ? "session" : "key"
            )
        );

    /// <summary>
    /// Whether a call that began as this one may go on as the other: it has lost nothing. Whoever has just chosen their own password, or
    /// set up a second factor, may do more than before, and is answered.
    /// </summary>
    public bool MayGoOnAs(Stand? now) =>
        now is not null && (MustChange || !now.MustChange) && (MustSetUp || !now.MustSetUp) && As.Roles.All(now.As.Roles.Contains);
}

/// <summary>What a token or a cookie says: which session it is of. What that may do is looked up each time.</summary>
internal static class SessionClaims
{
    private const string Session = "nailcrow_session";

    public static ClaimsPrincipal Of(Guid session, string name, string scheme) =>
        new(new ClaimsIdentity([new(ClaimTypes.Name, name), new(Session, session.ToString())], scheme));

    /// <summary>Null where nobody is signed in, or with a token from before sessions were kept.</summary>
    public static Guid? SessionOf(ClaimsPrincipal person) => Guid.TryParse(person.FindFirstValue(Session), out var id) ? id : null;
}
