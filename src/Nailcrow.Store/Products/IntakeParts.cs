using System.Globalization;

namespace Nailcrow.Store.Products;

/// <summary>
/// On a server what comes in lies in parts by the month in which it came, so that months nobody waits for anything of are let go of at once
/// and not message by message.
/// </summary>
internal static class IntakeParts
{
    // What stood in the way of a part, most of all somebody who reads for long.
    private static readonly TimeSpan AskedAgainAfter = TimeSpan.FromMinutes(10);

    /// <summary>Makes the part of this month and the one ahead. What a node of another time brings lies in no part, and is found all the same.</summary>
    /// <returns>Messages from before then need not ask.</returns>
    public static async Task<DateTimeOffset> RoomForAsync(NailcrowDb db, CancellationToken ct)
    {
        // By the server's clock: what one node takes for next year makes no parts for all.
        await using var said = await Asking.RowsAsync(
            db,
            $"SELECT clock_timestamp(), max(ends) FROM {Parts.Of("intake", "timestamptz")}",
            ct
        );
        await said.Reader.ReadAsync(ct);
        var (now, end) = (said.Reader.GetDateTime(0), said.Reader.IsDBNull(1) ? DateTime.MinValue : said.Reader.GetDateTime(1));
        await said.Reader.DisposeAsync();
        var next = new DateTime(now.Year, now.Month, 1, 0, 0, 0, DateTimeKind.Utc).AddMonths(1);
        DateTime[] missing = [.. new[] { next.AddMonths(-1), next }.Where(month => month >= end)];
        var made = await Parts.TriedAsync(
            db,
            async () =>
            {
                foreach (var month in missing)
                    await Asking.DoAsync(db, Making($"intake_{month:yyyy_MM}", Said(month), Said(month.AddMonths(1))), ct);
            },
            ct
        );
        return new(made ? next : now + AskedAgainAfter, TimeSpan.Zero);
    }

    /// <summary>With what a node of another time brought of that month before it had a part.</summary>
    private static string Making(string part, string from, string to) =>
        Parts.Making(
            "intake",
            part,
            from,
            to,
            $"WITH early AS (DELETE FROM intake_else WHERE received_at >= '{from}' AND received_at < '{to}' RETURNING *) "
                + $"INSERT INTO {part} SELECT * FROM early; "
        );

    /// <summary>Lets go of the parts that ended before a moment and in which nobody waits for anything.</summary>
    /// <param name="over">The words for what became of a message that nobody waits for any more.</param>
    /// <returns>How many messages are gone.</returns>
    public static async Task<int> TrimAsync(NailcrowDb db, DateTimeOffset before, IEnumerable<string> over, CancellationToken ct)
    {
        var (gone, others) = (0L, string.Join(", ", over.Select(word => $"'{word}'")));
        foreach (var part in await EndedAsync(db, before, ct))
        {
            var all = await Asking.NumberAsync(db, $"SELECT count(*) FROM {part}", ct); // while nobody waits for it
            await Parts.TriedAsync(
                db,
                async () =>
                {
                    // The whole before the part, as whoever reads it does.
                    await Asking.DoAsync(db, "LOCK TABLE intake IN ACCESS EXCLUSIVE MODE", ct);
                    if (await Asking.NumberAsync(db, $"{WordsIn(part)} SELECT count(*) FROM word WHERE outcome NOT IN ({others})", ct) > 0)
                        return;
                    await Asking.DoAsync(db, $"DROP TABLE {part}", ct);
                    gone += all;
                },
                ct
            );
        }
        return (int)gone;
    }

    /// <summary>Each outcome that there is, from one to the next by the index: of a few, not of each message.</summary>
    private static string WordsIn(string part) =>
        $"WITH RECURSIVE word AS (SELECT min(outcome) AS outcome FROM {part} UNION ALL "
        + $"SELECT (SELECT min(outcome) FROM {part} WHERE outcome > word.outcome) FROM word WHERE word.outcome IS NOT NULL)";

    private static async Task<List<string>> EndedAsync(NailcrowDb db, DateTimeOffset before, CancellationToken ct)
    {
        var parts = new List<string>();
        await using var rows = await Asking.RowsAsync(
            db,
            $"SELECT name FROM {Parts.Of("intake", "timestamptz")} WHERE ends <= '{Said(before.UtcDateTime)}'",
            ct
        );
        while (await rows.Reader.ReadAsync(ct))
            parts.Add(rows.Reader.GetString(0));
        return parts;
    }

    private static string Said(DateTime moment) => moment.ToString("yyyy-MM-dd HH:mm:ss.ffffff'+00'", CultureInfo.InvariantCulture);
}
