using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Returns;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Returns;

namespace Nailcrow.Service.Returns;

/// <summary>What is known of warranties: brought in as a list (<c>/api/import/warranties</c>), and what makers answered since.</summary>
internal static class WarrantyEndpoints
{
    private const int OnAPage = 100;

    public static void MapWarranties(this WebApplication app) =>
        app.MapGet("/api/warranties", List).WithTags("Returns").WithName("ListWarranties");

    /// <summary>Warranties in the order in which they end.</summary>
    /// <param name="find">The beginning or the end of a serial, or any part of a drive model's name.</param>
    /// <param name="from">Only those that end on this day or later: today leaves out what is over.</param>
    /// <param name="after">What the page before said to ask on with.</param>
    internal static async Task<Results<Ok<WarrantyPage>, ProblemHttpResult>> List(
        Warranties warranties,
        TimeProvider time,
        CancellationToken ct,
        string? find = null,
        DateOnly? from = null,
        string? after = null
    )
    {
        (DateOnly, string)? last = null;
        if (after is not null)
        {
            if (
                after.Split(' ', 2) is not [var day, var of]
                || !DateOnly.TryParseExact(day, "O", CultureInfo.InvariantCulture, DateTimeStyles.None, out var until)
            )
                return Refusals.Unusable("'after' is what the page before said to ask on with.");
            last = (until, of);
        }
        var found = await warranties.ListAsync(find?.Trim(), from, last, OnAPage + 1, ct);
        var today = DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime);
        var page = found.Take(OnAPage).ToList();
        return TypedResults.Ok(
            new WarrantyPage(
                [.. page.Select(w => new WarrantyLine(w, w.Said(today), w.Warranty.Until < today))],
                found.Count > OnAPage
                    ? $"{page[^1].Warranty.Until.ToString("O", CultureInfo.InvariantCulture)} {Warranties.NameOf(page[^1])}"
                    : null
            )
        );
    }
}
