using System.Collections;
using System.Globalization;
using System.Reflection;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Swaps;

namespace Nailcrow.Store.Tickets;

/// <summary>Reads every entry, folds every ticket, and holds the lists against what that gives.</summary>
internal static class ListCheck
{
    private const int AtOnce = 100;

    public static async Task RunAsync(
        IDbContextFactory<NailcrowDb> dbs,
        long of,
        Action<Trouble> tell,
        Action<CheckProgress> progress,
        CancellationToken ct
    )
    {
        for (long done = 0, after = 0; ; )
        {
            // Lists and journal as of one moment, while others write.
            await using var db = await dbs.CreateDbContextAsync(ct);
            await using var moment = await ReadMoment.BeginAsync(db, ct);
            var numbers = await db
                .Journal.Where(r => r.Ticket > after)
                .Select(r => r.Ticket)
                .Distinct()
                .OrderBy(n => n)
                .Take(AtOnce)
                .ToListAsync(ct);
            if (numbers.Count == 0)
                return;
            await SomeAsync(db, numbers, tell, ct);
            (done, after) = (done + numbers.Count, numbers[^1]);
            progress(new("lists", done, of));
        }
    }

    private static async Task SomeAsync(NailcrowDb db, List<long> numbers, Action<Trouble> tell, CancellationToken ct)
    {
        var rows = await JournalRows.OfTicketsAsync(db, numbers[0], numbers[^1], ct);
        var lines = await db.TicketLines.AsNoTracking().Where(l => numbers.Contains(l.Number)).ToDictionaryAsync(l => l.Number, ct);
        var places = (await db.DrivePlaces.AsNoTracking().Where(r => numbers.Contains(r.Ticket)).ToListAsync(ct)).ToLookup(r => r.Ticket);
        var snapshots = (await db.Snapshots.AsNoTracking().Where(r => numbers.Contains(r.Ticket)).ToListAsync(ct)).ToLookup(r => r.Ticket);
        var lives = (await db.LifeEvents.AsNoTracking().Where(r => numbers.Contains(r.Ticket)).ToListAsync(ct)).ToLookup(r => r.Ticket);
        var times = (await db.StepTimes.AsNoTracking().Where(r => numbers.Contains(r.Ticket)).ToListAsync(ct)).ToLookup(r => r.Ticket);
        foreach (var ofOne in rows)
        {
            var record = TicketRecord.Of(ofOne.Key, ofOne.Select(EntryReader.Read));
            foreach (var entry in record.Arrived)
                if (entry.Body is Unreadable unreadable)
                    tell(
                        new(
                            TroubleKind.CannotBeRead,
                            entry.Ticket,
                            entry.Seq,
                            $"{TicketNumber.Text(entry.Ticket)} entry {entry.Seq} ({unreadable.Kind}) cannot be read by this version: {unreadable.Why}"
                        )
                    );
            var line = lines.GetValueOrDefault(ofOne.Key);
            if (line is { Rules: not Projecting.ListRules })
                continue; // told by older rules, and about to be told anew
            var differing = new[]
            {
                ("the list of tickets", Same(line is null ? [] : [line], [Projecting.Line(record)])),
                ("where drives are", Same(places[ofOne.Key], Projecting.Places(record))),
                ("the snapshots", Same(snapshots[ofOne.Key], Projecting.Snapshots(record))),
                ("the drives' lives", Same(lives[ofOne.Key], Projecting.Life(record))),
                ("the times of steps", Same(times[ofOne.Key], Projecting.StepTimes(record))),
            }
                .Where(l => !l.Item2)
                .Select(l => l.Item1)
                .ToList();
            if (differing.Count > 0)
                tell(
                    new(
                        TroubleKind.ListsDiffer,
                        ofOne.Key,
                        null,
                        $"{TicketNumber.Text(ofOne.Key)}: {string.Join(", ", differing)} do not say what the journal says; 'nailcrow admin rebuild-projections' tells them anew."
                    )
                );
        }
    }

    private static bool Same<T>(IEnumerable<T> kept, IEnumerable<T> told) =>
        kept.Select(Told)
            .Order(StringComparer.Ordinal)
            .SequenceEqual(told.Select(Told).Order(StringComparer.Ordinal), StringComparer.Ordinal);

    private static string Told<T>(T row) =>
        string.Join(
            '\u001f',
            typeof(T)
                .GetProperties(BindingFlags.Public | BindingFlags.Instance)
                .Select(p =>
                    p.GetValue(row) switch
                    {
                        DateTimeOffset at => at.UtcDateTime.ToString("yyyy-MM-dd HH:mm:ss.fff", CultureInfo.InvariantCulture), // databases keep different fractions
                        IEnumerable and not string => throw new InvalidOperationException($"{typeof(T).Name}.{p.Name} is no plain value."),
                        var value => Convert.ToString(value, CultureInfo.InvariantCulture),
                    }
                )
        );
}
