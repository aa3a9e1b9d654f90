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

    public IReadOnlyList<Role> Roles() =>
        [
            .. RoleWords
                .Split(',', StringSplitOptions.RemoveEmptyEntries)
                .Select(w => Words.Parse<Role>(w, "role"))
                .OfType<Parsed<Role>.Ok>()
                .Select(r => r.Value),
        ];
}
