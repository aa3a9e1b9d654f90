namespace Nailcrow.Store.Products;

/// <summary>
/// On a server the journal lies in parts by the numbers of tickets, which rise with time: what is written now has indexes that fit into
/// memory, and what is old is read as ever and may lie on slower disks. By tickets and not by months, since a ticket's entries are read
/// together and the key that keeps two writers of it apart has to name what parts them.
/// </summary>
internal static class JournalParts
{
    /// <summary>How many tickets a part is for: some five million entries, with indexes of a gigabyte.</summary>
    private const long Tickets = 100_000;

    // Further on than anybody counts is a number that somebody made up; it lies where all lies that is in no part.
    private const int MostAtOnce = 1_000;

    // What stood in the way of a new part is asked again after so many tickets; there is a whole part left until then.
    private const int AskedAgainAfter = 50;

    /// <summary>Makes the part after the one that a ticket lies in, so that there always is one ahead.</summary>
    /// <param name="guards">What keeps all parts of the journal as they were written.</param>
    /// <returns>Tickets below this number need not ask.</returns>
    public static async Task<long> RoomForAsync(NailcrowDb db, long ticket, IEnumerable<string> guards, CancellationToken ct)
    {
        // Where one could not be made in time its tickets lie in no part, and stay there together: parts go on behind them.
        var end = await Asking.NumberAsync(
            db,
            $"SELECT greatest(max(ends), (SELECT (max(ticket) / {Tickets} + 1) * {Tickets} FROM journal_else WHERE ticket <= {ticket})) "
                + $"FROM {Parts.Of("journal", "bigint")}",
            ct
        );
        if (ticket < end - Tickets || (ticket - end) / Tickets > MostAtOnce)
            return Math.Max(end - Tickets, ticket + 1);
        var made = await Parts.TriedAsync(
            db,
            async () =>
            {
                for (; ticket >= end - Tickets; end += Tickets)
                    await Asking.DoAsync(db, Parts.Making("journal", $"journal_from_{end}", $"{end}", $"{end + Tickets}"), ct);
                foreach (var guard in guards)
                    await Asking.DoAsync(db, guard, ct);
            },
            ct
        );
        return made ? end - Tickets : ticket + AskedAgainAfter;
    }
}
