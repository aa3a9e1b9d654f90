using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;

namespace Nailcrow.StandIn.Partners;

/// <summary>A simulated carrier: books boxes, moves them, and tells what became of them when it is asked and by itself.</summary>
/// <param name="tells">Where it pushes events to; null to be asked only.</param>
/// <param name="movesEvery">How long a step of a parcel takes; zero where only hands move it.</param>
internal sealed class CarrierStandIn(PartnerDoor door, Uri? tells, TimeSpan movesEvery)
{
    private static readonly ParcelStep[] UsualWay = [ParcelStep.Collected, ParcelStep.OnTheWay, ParcelStep.Delivered];

    private readonly ConcurrentDictionary<Guid, Booked> _bookings = new();
    private readonly HttpClient _http = new() { Timeout = TimeSpan.FromSeconds(10) };
    private int _last = 4_070_000;

    private sealed record Booked(string Label, BookingAsk Ask, DateOnly CollectsOn, List<ParcelEvent> Events)
    {
        public bool CalledOff { get; set; }
    }

    public void Map(WebApplication app)
    {
        app.MapPost("/bookings", BookAsync);
        app.MapPost("/bookings/{booking:guid}/call-off", CallOffAsync);
        app.MapGet("/parcels/{label}/events", EventsAsync);
        app.MapPost("/aisle/parcel/{label}/{step}", HandAsync);
        door.MapHands(
            app,
            () =>
                _bookings
                    .Values.OrderBy(b => b.Label)
                    .Select(b => new
                    {
                        b.Label,
                        b.Ask.Reference,
                        b.Ask.Contents,
                        b.CalledOff,
                        b.Events,
                    })
        );
    }

    /// <summary>Parcels go their usual way by themselves.</summary>
    public async Task MoveAsync(CancellationToken ct)
    {
        if (movesEvery <= TimeSpan.Zero)
            return;
        using var timer = new PeriodicTimer(movesEvery);
        while (await timer.WaitForNextTickAsync(ct))
            foreach (var booked in _bookings.Values.Where(b => !b.CalledOff))
                if (booked.Events.Count < UsualWay.Length && booked.Events.All(e => UsualWay.Contains(e.Step)))
                    await HappenAsync(booked, UsualWay[booked.Events.Count], null, null, DateTimeOffset.UtcNow);
    }

    private async Task<IResult> BookAsync(HttpContext http, CancellationToken ct)
    {
        var (body, instead) = await door.ReadAsync(http, ct);
        if (instead is not null)
            return instead;
        if (JsonSerializer.Deserialize(body, OutsideJson.Default.BookingAsk) is not { } ask)
            return PartnerDoor.No(400, "That is no booking.");
        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        if (ask.CollectOn < today)
            return PartnerDoor.No(
                422,
                string.Create(CultureInfo.InvariantCulture, $"{ask.CollectOn:yyyy-MM-dd} is over; we come from {today:yyyy-MM-dd} on.")
            );
        var booked = _bookings.GetOrAdd(
            ask.Booking,
            _ =>
                new(
                    string.Create(CultureInfo.InvariantCulture, $"PC{Interlocked.Increment(ref _last):00000000}"),
                    ask,
                    ask.CollectOn ?? today.AddDays(1),
                    []
                )
        );
        return door.Manner == PartnerManner.Wrong
            ? Results.Json(new BookingAnswer(""), OutsideJson.Default.BookingAnswer)
            : Results.Json(new BookingAnswer(booked.Label, booked.CollectsOn), OutsideJson.Default.BookingAnswer);
    }

    private async Task<IResult> CallOffAsync(Guid booking, HttpContext http, CancellationToken ct)
    {
        var (_, instead) = await door.ReadAsync(http, ct);
        if (instead is not null)
            return instead;
        if (!_bookings.TryGetValue(booking, out var booked))
            return PartnerDoor.No(404, "We have no such booking.");
        if (booked.Events.Count > 0)
            return PartnerDoor.No(409, $"{booked.Label} was collected already.");
        booked.CalledOff = true;
        return Results.Text("{}", "application/json");
    }

    private async Task<IResult> EventsAsync(string label, HttpContext http, CancellationToken ct)
    {
        var (_, instead) = await door.ReadAsync(http, ct);
        return instead
            ?? (
                Find(label) is { } booked
                    ? Results.Json(new ParcelEvents([.. booked.Events]), OutsideJson.Default.ParcelEvents)
                    : PartnerDoor.No(404, $"We have no parcel {label}.")
            );
    }

    /// <summary>Somebody lets something happen to a parcel.</summary>
    private async Task<IResult> HandAsync(string label, string step, string? place, string? says, DateTimeOffset? at)
    {
        var known = Enum.GetValues<ParcelStep>().ToDictionary(Core.Terms.Words.Of);
        if (!known.TryGetValue(step, out var wanted))
            return Results.Text($"'{step}' is no step; accepted: {string.Join(", ", known.Keys)}.", statusCode: 409);
        if (Find(label) is not { } booked)
            return Results.Text(
                $"There is no parcel {label}; there are: {string.Join(", ", _bookings.Values.Select(b => b.Label).DefaultIfEmpty("none"))}.",
                statusCode: 409
            );
        return Results.Text(await HappenAsync(booked, wanted, place, says, at ?? DateTimeOffset.UtcNow));
    }

    private Booked? Find(string label) => _bookings.Values.FirstOrDefault(b => b.Label == label);

    private async Task<string> HappenAsync(Booked booked, ParcelStep step, string? place, string? says, DateTimeOffset at)
    {
        var happened = new ParcelEvent($"{booked.Label}-{booked.Events.Count + 1}", booked.Label, step, at, place, says);
        booked.Events.Add(happened);
        var said = $"{booked.Label} is now: {Core.Terms.Words.Of(step)}.";
        return tells is null ? said : $"{said} {await PushAsync(happened)}";
    }

    private async Task<string> PushAsync(ParcelEvent happened)
    {
        var body = JsonSerializer.SerializeToUtf8Bytes(new ParcelEvents([happened]), OutsideJson.Default.ParcelEvents);
        var stamp = DateTimeOffset.UtcNow.ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture);
        using var request = new HttpRequestMessage(HttpMethod.Post, tells) { Content = new ByteArrayContent(body) };
        request.Content.Headers.ContentType = new("application/json");
        request.Headers.Add("webhook-id", happened.Id);
        request.Headers.Add("webhook-timestamp", stamp);
        request.Headers.Add("webhook-signature", SignedEvents.Sign(happened.Id, stamp, body, door.Secret));
        try
        {
            using var answer = await _http.SendAsync(request);
            return answer.IsSuccessStatusCode
                ? "Told."
                : $"Told, and answered {(int)answer.StatusCode}: {await answer.Content.ReadAsStringAsync()}";
        }
        catch (Exception e) when (e is HttpRequestException or TaskCanceledException)
        {
            return "Nobody was reached to tell it to; it is told when somebody asks.";
        }
    }
}
