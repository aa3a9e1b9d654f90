using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

/// <summary>
/// Whoever is assigned, handed over to or given a part is somebody who may come in, and an engineer: a name that nobody has waits for
/// nobody.
/// </summary>
internal sealed class KnownPeople(PeopleBook people)
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
        var all = await people.AllAsync(ct);
        var engineers = Engineers(all);
        return engineers.Contains(named) ? null
            : all.Any(p => p.Name == named && p.DisabledAt is not null)
                ? $"'{named}' may not come in any more; engineers: {string.Join(", ", engineers)}."
            : $"'{named}' is no engineer here; engineers: {string.Join(", ", engineers)}.";
    }

    /// <summary>By the names they sign in with.</summary>
    public async Task<IReadOnlyCollection<string>> EngineersAsync(CancellationToken ct) => Engineers(await people.AllAsync(ct));

    private static List<string> Engineers(IEnumerable<Person> all) =>
        [.. all.Where(p => p.IsEngineer()).Select(p => p.Name).Order(StringComparer.Ordinal)];
}
