using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Nailcrow.Core.Swaps.Learning;

namespace Nailcrow.Store.Procedures;

/// <summary>How long one visit of a step took, on a run that is over. A projection of the journal.</summary>
internal sealed class StepTimeRow
{
    public required long Ticket { get; init; }

    /// <summary>Its number among the visits of its ticket's run.</summary>
    public required int Nth { get; init; }
    public required string Procedure { get; init; }
    public required string Version { get; init; }
    public required string Step { get; init; }
    public required double Seconds { get; init; }
    public required string Branch { get; init; }
    public required bool Overruled { get; init; }
    public required DateTimeOffset At { get; init; }
}

internal sealed class StepTimeMapping : IEntityTypeConfiguration<StepTimeRow>
{
    public void Configure(EntityTypeBuilder<StepTimeRow> row)
    {
        row.ToTable("step_time");
        row.HasKey(r => new { r.Ticket, r.Nth });
        row.HasIndex(r => new { r.Procedure, r.At });
    }
}

/// <summary>What runs that are over took, step by step.</summary>
public sealed class StepTimes(IDbContextFactory<NailcrowDb> dbs)
{
    // The newest runs say how the procedure is now; some hundreds of runs of fifty steps are enough for a median.
    private const int Most = 20_000;

    public async Task<IReadOnlyList<StepVisit>> OfAsync(string procedure, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        var rows = await db
            .StepTimes.AsNoTracking()
            .Where(r => r.Procedure == procedure)
            .OrderByDescending(r => r.At)
            .Take(Most)
            .ToListAsync(ct);
        return
        [
            .. rows.Select(r => new StepVisit(
                r.Ticket,
                r.Nth,
                r.Procedure,
                r.Version,
                r.Step,
                Took(r.Seconds),
                r.Branch,
                r.Overruled,
                r.At
            )),
        ];
    }

    /// <summary>What is no time a step can take, because somebody was at the database, is none.</summary>
    private static TimeSpan Took(double seconds) =>
        seconds >= 0 && seconds < TimeSpan.MaxValue.TotalSeconds ? TimeSpan.FromSeconds(seconds) : TimeSpan.Zero;
}
