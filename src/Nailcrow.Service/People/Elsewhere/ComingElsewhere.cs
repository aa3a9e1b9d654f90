using System.Security.Claims;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>Whom the provider has let in, as somebody here; whoever is refused is in the security log, like a wrong password.</summary>
internal sealed class ComingElsewhere(ElsewhereWays ways, PeopleElsewhere people, SecurityLog log)
{
    private readonly RolesElsewhere _roles = new(ways.Settings?.RoleOf() ?? new Dictionary<string, Core.People.Role>());

    public async Task<Parsed<Person>> ComesAsync(ClaimsIdentity told, string address, CancellationToken ct)
    {
        if (!Of(told, ways).Is(out var who, out var unusable))
            return new Parsed<Person>.Refused(unusable);
        var come = await people.ComesAsync(who, _roles.Of(who.Groups), address, ct);
        if (come is Parsed<Person>.Refused(var why))
            await log.WriteAsync(new(Logged(who.NameHere), address), SecurityEvent.SignInRefused, null, why, ct);
        return come;
    }

    /// <summary>Nobody here may be called so, with its brackets: it is a name of theirs there.</summary>
    private static string Logged(string name) => $"({SignInName.Elsewhere}) {Visible.Text(Shortened.To(name, SignInName.Most))}";

    /// <summary>What the provider tells of whom it has let in.</summary>
    public static Parsed<ToldElsewhere> Of(ClaimsIdentity told, ElsewhereWays ways)
    {
        if (
            ways.Settings is not { } settings
            || told.FindFirst("sub")?.Value is not { Length: > 0 and <= ToldElsewhere.LongestSubject } subject
        )
            return new Parsed<ToldElsewhere>.Refused("The provider does not say whom it has let in.");
        var mail = told.FindFirst("email_verified")?.Value is "false" ? null : told.FindFirst("email")?.Value;
        return new Parsed<ToldElsewhere>.Ok(
            new(
                settings.Issuer.TrimEnd('/'),
                settings.NameTold,
                subject,
                told.FindFirst("preferred_username")?.Value ?? told.FindFirst("email")?.Value,
                told.FindFirst("name")?.Value,
                mail is not null && Mailbox.IsOne(mail) ? mail.Trim() : null,
                [.. told.FindAll(settings.RolesClaim).Select(c => c.Value)]
            )
        );
    }
}
