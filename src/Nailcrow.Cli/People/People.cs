using Nailcrow.Client.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.People;

internal static class People
{
    public static string Roles(PersonView person) => string.Join(", ", person.Roles.Select(Words.Of));
}
