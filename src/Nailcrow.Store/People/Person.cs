using Microsoft.AspNetCore.Identity;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Store.People;

/// <summary>Somebody who signs in.</summary>
public sealed class Person : IdentityUser
{
    public string FullName { get; set; } = "";

    /// <summary>Roles in words, separated by commas; few and fixed, so no table of their own.</summary>
    public string RoleWords { get; set; } = "";

    /// <summary>Since when they may not come in; null while they may.</summary>
    public DateTimeOffset? DisabledAt { get; set; }

    /// <summary>Why, as whoever disabled them wrote.</summary>
    public string? DisabledBecause { get; set; }

    /// <summary>Their password was given to them by somebody, and is good for choosing one of their own.</summary>
    public bool MustChange { get; set; }

    /// <summary>Until when it is good for that; null where none was given, or by a release that set no end.</summary>
    public DateTimeOffset? FirstUntil { get; set; }

    /// <summary>They were given a password, and have not chosen one of their own in time.</summary>
    public bool HasRunOut(DateTimeOffset now) => MustChange && FirstUntil < now;

    public string Name => UserName ?? "";

    public IReadOnlyList<Role> Roles() => RoleList.Of(RoleWords);

    /// <summary>Somebody who may come in and go to machines, and so has a van.</summary>
    public bool IsEngineer() => DisabledAt is null && Roles().Contains(Role.Engineer);
}

/// <summary>Roles as they are kept.</summary>
internal static class RoleList
{
    public static IReadOnlyList<Role> Of(string words) =>
        [
            .. words
                .Split(',', StringSplitOptions.RemoveEmptyEntries)
                .Select(w => Words.Parse<Role>(w, "role"))
                .OfType<Parsed<Role>.Ok>()
                .Select(r => r.Value),
        ];

    public static string Text(IEnumerable<Role> roles) => string.Join(',', roles.Distinct().Order().Select(Words.Of));
}
