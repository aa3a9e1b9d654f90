using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>Whoever is assigned, handed over to or given a part is somebody, and an engineer: a name that nobody has waits for nobody.</summary>
internal sealed class KnownPeople(UserManager<Person> people)
{
    /// <returns>Why nobody can be meant by it; null where somebody is, or where the entry names nobody.</returns>
    public async Task<string?> WhyNotAsync(EntryBody body, CancellationToken ct)
    {
        var named = (body is EntryCorrected { Instead: { } so } ? so : body) switch
        {
            EngineerAssigned assigned => assigned.Engineer,
            HandedOver over => over.To,
            PartIssued issued => issued.To,
            _ => null,
        };
        if (named is null)
            return null;
        var engineers = (await people.Users.AsNoTracking().ToListAsync(ct))
            .Where(p => p.Roles().Contains(Role.Engineer))
            .Select(p => p.UserName ?? "")
            .Order(StringComparer.Ordinal)
            .ToList();
        return engineers.Contains(named) ? null : $"'{named}' is no engineer here; engineers: {string.Join(", ", engineers)}.";
    }
}
