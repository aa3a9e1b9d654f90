using Nailcrow.Client.People;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

internal static class PersonViews
{
    public static PersonView Of(Person person) =>
        new(
            person.Name,
            person.FullName,
            person.Roles(),
            Mail: person.Email,
            DisabledAt: person.DisabledAt,
            DisabledBecause: person.DisabledBecause,
            MustChange: person.MustChange,
            FirstUntil: person.FirstUntil,
            HasPassword: person.PasswordHash is not null
        );
}
