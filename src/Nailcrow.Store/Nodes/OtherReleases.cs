using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Store.Nodes;

/// <summary>
/// What the nodes of another release that work here beside this one do not read. While there are some, nothing is decided in words that
/// they would count for nothing; what has happened is written all the same, as facts are never refused.
/// </summary>
public sealed class OtherReleases
{
    private IReadOnlyList<Other> _others = [];

    private sealed record Heard(Guid Id, string Name, string? Release, string? ReadsAs);

    /// <param name="Reads">Null where it reads all that this release does.</param>
    private sealed record Other(Heard Heard, IReadOnlySet<string>? Reads);

    /// <summary>Why a decision cannot be taken yet; null where it can.</summary>
    public string? WhyNotYet(EntryBody body)
    {
        if (_others is not { Count: > 0 } others || body is not DecisionBody)
            return null;
        var words = JournalWords.Of(body);
        return others.FirstOrDefault(o => o.Reads is { } reads && !words.IsSubsetOf(reads)) is { } older
            ? $"This is new in {Release.Version}, and {older.Heard.Name} still runs {older.Heard.Release}, which would count it for nothing. "
                + "Try again when that node is upgraded too."
            : null;
    }

    /// <summary>Asked with each renewal; what a node reads is fetched once.</summary>
    internal async Task HearAsync(NailcrowDb db, Guid own, CancellationToken ct)
    {
        var there = await db
            .Database.SqlQuery<Heard>(
                $"""
                SELECT id, name, release, md5(reads::text) AS reads_as FROM node
                WHERE id <> {own} AND seen_at > clock_timestamp() - interval '1 minute'
                AND reads IS DISTINCT FROM (SELECT reads FROM node WHERE id = {own})
                """
            )
            .ToListAsync(ct);
        var known = _others.ToDictionary(o => o.Heard);
        var others = new List<Other>();
        foreach (var heard in there)
            others.Add(known.GetValueOrDefault(heard) ?? new(heard, await ReadsAsync(db, heard, ct)));
        _others = others;
    }

    /// <summary>Nodes of 0.1.0 do not say what they read; this release writes in no words that they do not have.</summary>
    private static async Task<IReadOnlySet<string>?> ReadsAsync(NailcrowDb db, Heard other, CancellationToken ct) =>
        other.ReadsAs is null
            ? null
            : (
                await db.Set<NodeRow>().AsNoTracking().Where(n => n.Id == other.Id).Select(n => n.Reads).SingleOrDefaultAsync(ct)
            )?.ToHashSet();
}
