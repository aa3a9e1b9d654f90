using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Store;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>Makes the first administrator, so that somebody can let the others in.</summary>
internal sealed class FirstPerson(IServiceScopeFactory scopes, ILogger<FirstPerson> log)
{
    public async Task MakeAsync(FirstAdmin? wanted, CancellationToken ct)
    {
        await using var scope = scopes.CreateAsyncScope();
        if (await scope.ServiceProvider.GetRequiredService<NailcrowDb>().Users.AnyAsync(ct))
            return;
        if (wanted is null)
        {
            log.LogWarning("Nobody can sign in yet: start once with Nailcrow__FirstAdmin__Name and Nailcrow__FirstAdmin__Password set.");
            return;
        }
        var person = new Person
        {
            UserName = wanted.Name,
            FullName = wanted.Name,
            RoleWords = Words.Of(Role.Admin),
        };
        var made = await scope.ServiceProvider.GetRequiredService<UserManager<Person>>().CreateAsync(person, wanted.Password);
        if (!made.Succeeded)
            throw new InvalidOperationException(
                $"The first administrator cannot be made: {string.Join(" ", made.Errors.Select(e => e.Description))}"
            );
    }
}
