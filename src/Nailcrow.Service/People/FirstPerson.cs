using Nailcrow.Core.People;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>Makes the first administrator, so that somebody can let the others in.</summary>
internal sealed class FirstPerson(PeopleBook people, PasswordHashing hashing, ILogger<FirstPerson> log)
{
    public async Task MakeAsync(FirstAdmin? wanted, CancellationToken ct)
    {
        if ((await people.AllAsync(ct)).Count > 0)
            return;
        if (wanted is null)
        {
            log.LogWarning("Nobody can sign in yet: start once with Nailcrow__FirstAdmin__Name and Nailcrow__FirstAdmin__Password set.");
            return;
        }
        if (Password.WhyNot(wanted.Password, wanted.Name, wanted.Name, CommonPasswords.Has) is { } whyNot)
            throw new InvalidOperationException($"The first administrator cannot be made: {whyNot}");
        var person = new Person
        {
            UserName = wanted.Name,
            FullName = wanted.Name,
            RoleWords = Words.Of(Role.Admin),
            PasswordHash = await hashing.HashAsync(wanted.Password, ct),
        };
        if (!(await people.AddAsync(new("root", null), person, ct)).Is(out _, out var reason))
            throw new InvalidOperationException($"The first administrator cannot be made: {reason}");
    }
}
