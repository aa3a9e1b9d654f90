using Nailcrow.Cli.Shell;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.People;

internal static class People
{
    public static string Roles(PersonView person) => string.Join(", ", person.Roles.Select(Words.Of));

    /// <summary>Roles as they are typed, separated by commas.</summary>
    /// <exception cref="UsageProblem">One of them is none; the message lists them.</exception>
    public static IReadOnlyList<Role> RolesOf(string typed) =>
        [
            .. typed
                .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Select(word => Said.Word<Role>(word, "role")),
        ];
}
