using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Returns;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Returns.Supplies;

namespace Nailcrow.Service.Returns;

/// <summary>What has no serial: carriers, screws, cables, labels. How many are where, and what came, went and was used.</summary>
internal static class SuppliesEndpoints
{
    public static void MapSupplies(this WebApplication app)
    {
        var supplies = app.MapGroup("/api/supplies").WithTags("Returns");
        supplies.MapGet("/", List).WithName("ListSupplies");
        supplies.MapGet("/{name}", Show).WithName("ShowSupply");
        supplies.MapPost("/", Write).WithName("CountSupplies");
    }

    /// <summary>Every supply with how many are where, by name.</summary>
    /// <param name="depot">Only what lies in this one.</param>
    /// <param name="van">Only what this person has in their van.</param>
    internal static async Task<Ok<IReadOnlyList<SupplyStock>>> List(
        SupplyBook book,
        CancellationToken ct,
        string? depot = null,
        string? van = null
    ) =>
        TypedResults.Ok(
            await book.ListAsync(
                !string.IsNullOrWhiteSpace(van) ? new(HolderKind.Van, van.Trim())
                    : !string.IsNullOrWhiteSpace(depot) ? Holder.OfPlace(depot)
                    : null,
                ct
            )
        );

    /// <summary>One supply with its line in the ledger.</summary>
    internal static async Task<Results<Ok<SupplyView>, ProblemHttpResult>> Show(string name, SupplyBook book, CancellationToken ct) =>
        !SupplyName.Parse(name).Is(out var supply, out var reason) ? Refusals.Unusable(reason)
        : await book.ViewAsync(supply, ct) is { } view ? TypedResults.Ok(view)
        : Refusals.NotFound($"Nothing is known of {supply}; 'nailcrow stock supply list' tells what is counted.");

    /// <summary>Some came, went elsewhere, were used up, or were counted.</summary>
    internal static async Task<Results<Ok<SupplyAnswer>, ProblemHttpResult>> Write(
        Sent<SupplyAsk> sent,
        SupplyBook book,
        KnownPlaces places,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (!SupplyName.Parse(ask.Supply).Is(out var name, out var reason))
            return Refusals.Unusable(reason);
        if (Counting.WhyNot(person.ToActor(), ask.Way == SupplyWay.Counted ? Place(ask.From) : null) is { } notTheirs)
            return Refusals.NotAllowed(notTheirs);
        if (ask.Note?.Length > MostOfANote)
            return Refusals.Unusable($"The note has {ask.Note.Length:N0} characters; at most {MostOfANote:N0} are taken.");
        var (from, to) = (await NamedAsync(ask.From), await NamedAsync(ask.To));
        if (WhyNot(to) is { } noTo)
            return Refusals.Unusable(noTo);
        // What is in the van of somebody who has gone is taken out of it; where nothing is, nothing is counted.
        if (ask.Way == SupplyWay.Counted && WhyNot(from) is { } noVan && await IsEmptyAsync(Place(ask.From), book, ct))
            return Refusals.Unusable(noVan);
        if ((to as NamedPlace.Near ?? (ask.Way == SupplyWay.Counted ? from as NamedPlace.Near : null)) is { } near)
            return TypedResults.Ok(new SupplyAnswer(near.Says, true, NearDepot: near.Depot));
        var move = new SupplyMove(
            ask.Id,
            name.Text,
            ask.Way,
            ask.Count,
            time.GetUtcNow(),
            person.ToActor().Name,
            Meant(from, ask.From),
            Meant(to, ask.To),
            Note: string.IsNullOrWhiteSpace(ask.Note) ? null : ask.Note.Trim()
        );
        var written = await book.WriteAsync(name, move, ask.AsNamed, ct);
        return TypedResults.Ok(new SupplyAnswer(written.Says, written.Asks, written.Near));

        async Task<NamedPlace?> NamedAsync(string? said) => Place(said) is { } place ? await places.OfAsync(place, ask.NewDepot, ct) : null;
    }

    private static string? WhyNot(NamedPlace? place) => (place as NamedPlace.Nobodys)?.Says;

    private static Holder? Meant(NamedPlace? place, string? said) => (place as NamedPlace.There)?.Place ?? Place(said);

    private static async Task<bool> IsEmptyAsync(Holder? place, SupplyBook book, CancellationToken ct) =>
        place is null || (await book.ListAsync(place, ct)).Count == 0;

    private const int MostOfANote = 4_000;

    private static Holder? Place(string? said) => string.IsNullOrWhiteSpace(said) ? null : Holder.OfPlace(said);
}
