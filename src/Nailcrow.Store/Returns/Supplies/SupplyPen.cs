using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Rows;

namespace Nailcrow.Store.Returns.Supplies;

/// <param name="Near">A supply that reads nearly the same; null where it is a part.</param>
internal sealed record SupplyMeant(string Says, string? Near);

/// <summary>Writes lines of the ledger about supplies, in whatever transaction is open, with the rows that say how many are where.</summary>
internal sealed class SupplyPen(NailcrowDb db, PreparedRows<LedgerRow> ledger, PreparedRows<SupplyRow> counts)
{
    /// <summary>Lines that are there already are not written again; one that was undone and is so after all is taken as so again.</summary>
    /// <param name="cause">The entry that brought them about; null for what stores does by itself.</param>
    public async Task WriteAsync(IEnumerable<SupplyMove> moves, Entry? cause, DateTimeOffset now)
    {
        foreach (var move in moves)
            if (SupplyName.Parse(move.Supply) is Parsed<SupplyName>.Ok(var name) && await DueAsync(name, move, cause) is { } due)
                await WriteAsync(name, due, now);
    }

    /// <summary>How many are where now, and what it was called first; null where the ledger tells nothing of it.</summary>
    public async Task<(string? Name, SupplyLine Line)> NowAsync(SupplyName name)
    {
        var rows = await db.Supplies.AsNoTracking().Where(r => r.Key == name.Key).ToListAsync();
        return (
            rows.FirstOrDefault()?.Name ?? await SupplyCheck.CalledAsync(db, name.Key, CancellationToken.None),
            SupplyLine.From(rows.Select(r => KeyValuePair.Create(r.At(), r.Count)).ToList())
        );
    }

    /// <summary>What else a name may be meant for that the ledger does not have: a part, or a supply that reads nearly the same.</summary>
    /// <param name="asNamed">It was looked at again: it is no other one that reads nearly the same.</param>
    /// <returns>Null where it is known, or can only be new.</returns>
    public async Task<SupplyMeant?> MeantAsync(SupplyName name, bool asNamed)
    {
        if ((await NowAsync(name)).Name is not null)
            return null;
        var serial = SerialNumber.Normalise(name.Text);
        if (await db.Parts.AnyAsync(p => p.Serial == serial))
            return new($"{serial} is a part with a serial; 'nailcrow stock receive' and 'stock move' take those.", null);
        return !asNamed && SupplyDesk.Near(name.Text, await NamesAsync()) is { } near
            ? new($"Nothing is known of {name}; {near} reads nearly the same. Say which it is.", near)
            : null;
    }

    /// <summary>What all supplies are called, by name.</summary>
    public Task<List<string>> NamesAsync() => db.Supplies.Select(r => r.Name).Distinct().OrderBy(n => n).ToListAsync();

    /// <summary>How many of the next supply after one are where, told anew from the ledger alone.</summary>
    /// <returns>Which supply that was; null where there are no more.</returns>
    public async Task<string?> TellNextAsync(string after)
    {
        var from = after.Length > 0 ? after : SupplyName.KeyBegins;
        var some = await WholeLines.SomeAsync(db, from, SupplyName.KeyEnds, 1, CancellationToken.None);
        var key = some is [var next] ? next.Serial : null;
        var listed = db.Supplies.Where(r => string.Compare(r.Key, after) > 0);
        await (key is null ? listed : listed.Where(r => string.Compare(r.Key, key) <= 0)).ExecuteDeleteAsync();
        if (key is not null && some[0].Texts.Select(SupplyText.Read).OfType<SupplyMove>().ToList() is { Count: > 0 } moves)
            await TellAsync(key, moves[0].Supply, SupplyLine.Of(moves));
        return key;
    }

    // What is new needs no look at all that was: only what repeats or undoes an earlier line does.
    private async Task<SupplyMove?> DueAsync(SupplyName name, SupplyMove move, Entry? cause) =>
        move.Of is null && !await db.Ledger.AnyAsync(r => r.Id == move.Id) ? move : SupplyLine.Due(await LineAsync(name), move, cause);

    private async Task WriteAsync(SupplyName name, SupplyMove due, DateTimeOffset now)
    {
        var last = await db
            .Ledger.AsNoTracking()
            .Where(r => r.Serial == name.Key)
            .OrderByDescending(r => r.Seq)
            .Select(r => new { r.Seq, r.Hash })
            .FirstOrDefaultAsync();
        var (called, line) = await NowAsync(name);
        var numbered = due with
        {
            Supply = called ?? name.Text,
            Seq = (last?.Seq ?? 0) + 1,
            RecordedAt = LedgerPen.Milliseconds(now),
            At = LedgerPen.Milliseconds(due.At),
        };
        var text = SupplyText.Of(numbered);
        await ledger.InsertAsync(
            new()
            {
                Serial = name.Key,
                Seq = numbered.Seq,
                Id = numbered.Id,
                Ticket = numbered.Ticket,
                At = numbered.At,
                Text = text,
                Hash = HashChain.Next(last?.Hash ?? HashChain.Start, text),
            }
        );
        if (numbered.Of is null)
            await TellAsync(name.Key, numbered.Supply, line.With(numbered));
        else
        {
            await db.Supplies.Where(r => r.Key == name.Key).ExecuteDeleteAsync();
            await TellAsync(name.Key, numbered.Supply, SupplyLine.Of(await LineAsync(name)));
        }
    }

    private async Task TellAsync(string key, string name, SupplyLine line)
    {
        foreach (var (holder, count) in line.Counts)
            await counts.UpsertAsync(SupplyRow.Of(key, name, holder, count));
    }

    private async Task<List<SupplyMove>> LineAsync(SupplyName name) =>
        [
            .. (await db.Ledger.AsNoTracking().Where(r => r.Serial == name.Key).OrderBy(r => r.Seq).Select(r => r.Text).ToListAsync())
                .Select(SupplyText.Read)
                .OfType<SupplyMove>(),
        ];
}
