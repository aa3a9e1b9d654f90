using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Returns;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Returns;

/// <summary>Stores: what lies where, what is to be picked, what comes, what is late; and parts that come in, move and are counted.</summary>
internal static class StoresEndpoints
{
    private const int OnAPage = 200;

    public static void MapStores(this WebApplication app)
    {
        var stores = app.MapGroup("/api/stores").WithTags("Returns");
        stores.MapGet("/", Desk).WithName("ShowStores");
        stores.MapGet("/parts", Held).WithName("ListParts");
        stores.MapGet("/balance", ShowBalance).WithName("BalanceStores");
        stores.MapPost("/receipts", Receive).WithName("ReceivePart").Takes(Permission.KeepStores);
        stores.MapPost("/moves", Move).WithName("MoveParts").Takes(Permission.KeepStores);
        stores.MapPost("/hand-outs", HandOut).WithName("HandPartOut").Takes(Permission.KeepStores);
        stores.MapPost("/counts", Count).WithName("CountParts");
        stores.MapPost("/wipes", Wipe).WithName("RecordWipe").Takes(Permission.KeepStores);
        stores.MapPost("/write-offs", WriteOff).WithName("WriteOffPart").Takes(Permission.WriteOff);
        app.MapGet("/api/parts/{serial}", Line).WithTags("Returns").WithName("ShowPart");
    }

    /// <summary>All that stores looks at in the morning, of one depot or of all.</summary>
    internal static async Task<Ok<StoresDesk>> Desk(
        LedgerBook book,
        TicketLines lines,
        TimeProvider time,
        CancellationToken ct,
        string? depot = null
    )
    {
        var only = string.IsNullOrWhiteSpace(depot) ? null : depot.Trim();
        return TypedResults.Ok(
            new StoresDesk(
                await ToPickAsync(only, book, lines, ct),
                await book.ShelvesAsync(only, ct),
                await book.OnTheWayAsync(ct),
                await book.LateAsync(DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime), ct),
                await book.ToInspectAsync(only, ct),
                await book.ToWipeAsync(only, ct),
                await book.ApartAsync(only, ct),
                await book.CarriedAsync(ct),
                await book.ToOrderAsync(ct)
            )
        );
    }

    /// <summary>What is to be taken off its shelf for a ticket, the most urgent first.</summary>
    internal static async Task<IReadOnlyList<PickLine>> ToPickAsync(string? depot, LedgerBook book, TicketLines lines, CancellationToken ct)
    {
        var pick = await book.ToPickAsync(depot, ct);
        var tickets = (await lines.OfAsync([.. pick.Select(p => p.ReservedFor ?? 0)], ct)).ToDictionary(l => l.Number);
        return
        [
            .. pick.Where(p => tickets.ContainsKey(p.ReservedFor ?? 0))
                .Select(p => (Part: p, Line: tickets[p.ReservedFor ?? 0]))
                .Select(p => new PickLine(
                    p.Part,
                    p.Line.Number,
                    p.Line.Engineer,
                    p.Line.Asset,
                    p.Line.Site,
                    p.Line.VisitFrom ?? p.Line.DueAt
                ))
                .OrderBy(p => p.NeededBy ?? DateTimeOffset.MaxValue)
                .ThenBy(p => p.Ticket),
        ];
    }

    /// <summary>The parts of one holder, a page at a time.</summary>
    /// <param name="kind">depot, van, engineer, customer, carrier, maker, bay, destroyed or lost.</param>
    /// <param name="after">What the page before said to ask on with.</param>
    internal static async Task<Results<Ok<PartPage>, ProblemHttpResult>> Held(
        string kind,
        string holder,
        LedgerBook book,
        CancellationToken ct,
        string? shelf = null,
        string? after = null
    )
    {
        if (!Words.Parse<HolderKind>(kind, "kind of holder").Is(out var of, out var reason))
            return Refusals.Unusable(reason);
        (string, string)? from = after?.Split('\n') is [var model, var serial] ? (model, serial) : null;
        var found = await book.HeldAsync(new(of, holder.Trim(), shelf), from, OnAPage + 1, ct);
        var page = found.Take(OnAPage).ToList();
        return TypedResults.Ok(new PartPage(page, found.Count > OnAPage ? $"{page[^1].Model}\n{page[^1].Serial}" : null));
    }

    internal static async Task<Ok<Balance>> ShowBalance(LedgerBook book, CancellationToken ct) =>
        TypedResults.Ok(await book.BalanceAsync(ct));

    /// <summary>One part's whole line of custody.</summary>
    internal static async Task<Results<Ok<PartLineView>, ProblemHttpResult>> Line(string serial, LedgerBook book, CancellationToken ct)
    {
        if (!SerialNumber.Parse(serial).Is(out var read, out var reason))
            return Refusals.Unusable(reason);
        return await book.ViewAsync(await book.MeantAsync(read.Text, ct), ct) is { } view
            ? TypedResults.Ok(view)
            : Refusals.NotFound(
                $"The ledger has no part {SerialNumber.Normalise(read.Text)}; a drive that was only ever seen in its bay is under drives."
            );
    }

    /// <summary>A part in somebody's hand goes on a shelf: what waits for it is told, and a serial nobody expects is asked about.</summary>
    internal static async Task<Results<Ok<ReceiveAnswer>, ProblemHttpResult>> Receive(
        Sent<ReceiveAsk> sent,
        StoresRoom room,
        KnownPlaces places,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (NoPlace(ask.To) is { } no)
            return Refusals.Unusable(no);
        return await places.OfAsync(ask.To, ask.NewDepot, ct) switch
        {
            NamedPlace.Nobodys(var says) => Refusals.Unusable(says),
            NamedPlace.Near near => TypedResults.Ok(Asked(ask.Serial, near)),
            NamedPlace.There(var to) => TypedResults.Ok(
                await room.TakeInAsync(new(ask.Serial, to, ask.Model?.Trim(), ask.Bytes, ask.AsRead), ask.Id, person.ToActor(), ct)
            ),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    private static ReceiveAnswer Asked(string serial, NamedPlace.Near near) =>
        new(SerialNumber.Normalise(serial), near.Says, true, null, null, near.Depot);

    /// <summary>Parts that go to another shelf, depot or van, each told for itself.</summary>
    internal static async Task<Results<Ok<MoveAnswer>, ProblemHttpResult>> Move(
        Sent<MoveAsk> sent,
        StoresRoom room,
        KnownPlaces places,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if ((NoPlace(ask.To) ?? TooMany(ask.Serials)) is { } no)
            return Refusals.Unusable(no);
        var named = await places.OfAsync(ask.To, ask.NewDepot, ct);
        if (named is NamedPlace.Nobodys(var says))
            return Refusals.Unusable(says);
        if (named is NamedPlace.Near near)
            return TypedResults.Ok(new MoveAnswer([.. ask.Serials.Distinct().Select(serial => Asked(serial, near))]));
        var to = ((NamedPlace.There)named).Place;
        var answers = new List<ReceiveAnswer>();
        foreach (var serial in ask.Serials.Distinct())
            answers.Add(await room.TakeInAsync(new(serial, to), TicketMovements.IdOf(ask.Id, serial), person.ToActor(), ct));
        return TypedResults.Ok(new MoveAnswer(answers));
    }

    /// <summary>Hands a part to somebody: for the ticket it is set aside for, else into their van.</summary>
    internal static async Task<Results<Ok<ReceiveAnswer>, ProblemHttpResult>> HandOut(
        Sent<HandOutAsk> sent,
        StoresRoom room,
        KnownPeople people,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        return await people.WhyNotAsync(new PartIssued(ask.Serial, ask.To), ct) is { } nobody
            ? Refusals.Unusable(nobody)
            : TypedResults.Ok(await room.HandOutAsync(ask, person.ToActor(), ct));
    }

    /// <summary>What was scanned on a shelf or in a van, against what the ledger has there.</summary>
    internal static async Task<Results<Ok<CountAnswer>, ProblemHttpResult>> Count(
        Sent<CountAsk> sent,
        StoresRoom room,
        KnownPlaces places,
        LedgerBook book,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if ((NoPlace(ask.At) ?? TooMany(ask.Serials)) is { } no)
            return Refusals.Unusable(no);
        if (Counting.WhyNot(person.ToActor(), ask.At) is { } notTheirs)
            return Refusals.NotAllowed(notTheirs);
        return await places.OfAsync(ask.At, false, ct) switch
        {
            NamedPlace.There(var at) => TypedResults.Ok(await room.CountAsync(ask with { At = at }, person.ToActor(), ct)),
            // Somebody has gone, and what is in their van is looked for; into it nothing more is written down.
            NamedPlace.Nobodys when !ask.Book && (await book.HeldAsync(ask.At, null, 1, ct)).Count > 0 => TypedResults.Ok(
                await room.CountAsync(ask, person.ToActor(), ct)
            ),
            NamedPlace.Nobodys(var says) => Refusals.Unusable(says),
            NamedPlace.Near(_, var says) => Refusals.Unusable($"{says} {KnownPlaces.Begins}"),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    /// <summary>A used drive on a shelf was wiped.</summary>
    internal static async Task<Results<Ok<ReceiveAnswer>, ProblemHttpResult>> Wipe(
        Sent<WipeAsk> sent,
        StoresRoom room,
        ClaimsPrincipal person,
        CancellationToken ct
    ) =>
        string.IsNullOrWhiteSpace(sent.Message.Method)
            ? Refusals.Unusable("Say how it was wiped: overwritten once, sanitize command, degaussed.")
            : TypedResults.Ok(await room.WipedAsync(sent.Message, person.ToActor(), ct));

    /// <summary>A lead writes a part off that nobody finds.</summary>
    internal static async Task<Results<Ok<ReceiveAnswer>, ProblemHttpResult>> WriteOff(
        Sent<WriteOffAsk> sent,
        StoresRoom room,
        ClaimsPrincipal person,
        CancellationToken ct
    ) =>
        string.IsNullOrWhiteSpace(sent.Message.Because) || string.IsNullOrWhiteSpace(sent.Message.OnIt)
            ? Refusals.Unusable("Say how it was lost and what was done to find it, and what was on it: whose data, or none.")
            : TypedResults.Ok(await room.WriteOffAsync(sent.Message, person.ToActor(), ct));

    private static string? NoPlace(Holder to) =>
        to.Kind is not (HolderKind.Depot or HolderKind.Van)
            ? $"Stores puts parts into a depot or a van, not with {Words.Of(to.Kind)}; what goes to somebody else goes by its ticket."
        : string.IsNullOrWhiteSpace(to.Name) ? "Say which depot, or whose van."
        : to.Name.Length > 200 || to.Shelf?.Length > 40 ? "A depot's name has at most 200 characters, a shelf's at most 40."
        : null;

    private static string? TooMany(IReadOnlyList<string> serials) =>
        serials.Count > Counted.Most ? $"{serials.Count:N0} serials at once; at most {Counted.Most:N0} are taken. Count shelf by shelf."
        : serials.Count == 0 ? "No serial was scanned."
        : null;
}
