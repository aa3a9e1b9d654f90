using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Store.Swaps;

/// <summary>How long a customer's pictures are kept, and since when that was seen to be agreed.</summary>
internal sealed class PicturePeriodRow
{
    public required string Customer { get; init; }
    public required int Months { get; set; }
    public required DateTimeOffset Since { get; set; }
}

internal sealed class PicturePeriodMapping : IEntityTypeConfiguration<PicturePeriodRow>
{
    public void Configure(EntityTypeBuilder<PicturePeriodRow> row) => row.ToTable("picture_period").HasKey(r => r.Customer);
}

/// <summary>A period that counts: pictures of this customer's tickets that ended before then go.</summary>
/// <param name="EndedBefore">So many months ago.</param>
public sealed record PicturePeriod(string Customer, int Months, DateTimeOffset EndedBefore);

/// <summary>
/// Which pictures were kept as long as was agreed with their customers. What is agreed counts once it has stood for a week, however it came
/// in: a slip of a digit is seen before it has cost anything.
/// </summary>
public sealed class PicturePeriods(IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    public static readonly TimeSpan StandsFirst = TimeSpan.FromDays(7);

    /// <summary>When pictures begin to go; null where they are kept as long as the record.</summary>
    public async Task<DateTimeOffset?> BeginAsync(Customer customer, CancellationToken ct)
    {
        if (customer.PicturesKeptMonths is not { } months)
            return null;
        await using var db = await dbs.CreateDbContextAsync(ct);
        var seen = await db.PicturePeriods.AsNoTracking().FirstOrDefaultAsync(p => p.Customer == customer.Name, ct);
        return (seen?.Months == months ? seen.Since : time.GetUtcNow()) + StandsFirst;
    }

    /// <summary>Notes what is agreed by now, and gives what has stood long enough.</summary>
    public async Task<IReadOnlyList<PicturePeriod>> StandingAsync(CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var now = time.GetUtcNow();
        var noted = await db.PicturePeriods.ToDictionaryAsync(p => p.Customer, StringComparer.Ordinal, ct);
        var agreed = (await db.Customers.AsNoTracking().Select(c => c.Body).ToListAsync(ct))
            .Select(body => StoredJson.Parse(body, JournalJson.Default.Customer))
            .Where(c => c.PicturesKeptMonths is not null)
            .ToDictionary(c => c.Name, c => c.PicturesKeptMonths ?? 0, StringComparer.Ordinal);
        db.PicturePeriods.RemoveRange(noted.Values.Where(p => !agreed.ContainsKey(p.Customer)));
        foreach (var (customer, months) in agreed)
            if (!noted.TryGetValue(customer, out var row))
                db.PicturePeriods.Add(
                    new()
                    {
                        Customer = customer,
                        Months = months,
                        Since = now,
                    }
                );
            else if (row.Months != months)
                (row.Months, row.Since) = (months, now);
        await db.SaveChangesAsync(ct);
        return
        [
            .. noted
                .Values.Where(p => agreed.ContainsKey(p.Customer) && now - p.Since >= StandsFirst)
                .Select(p => new PicturePeriod(p.Customer, p.Months, now.AddMonths(-p.Months))),
        ];
    }

    /// <summary>Tickets at rest after a number, in order, that pictures are kept of and that may have ended before then.</summary>
    public async Task<IReadOnlyList<long>> TicketsAsync(PicturePeriod period, long after, int most, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db
            .TicketLines.AsNoTracking()
            .Where(l => l.Customer == period.Customer && l.Ended && l.ReceivedAt < period.EndedBefore && l.Number > after)
            .Where(l => db.Photos.Any(p => p.Ticket == l.Number))
            .OrderBy(l => l.Number)
            .Select(l => l.Number)
            .Take(most)
            .ToListAsync(ct);
    }

    /// <summary>The pictures that are kept of a ticket.</summary>
    public async Task<IReadOnlyList<Guid>> PicturesAsync(long ticket, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Photos.Where(p => p.Ticket == ticket).Select(p => p.Id).ToListAsync(ct);
    }
}
