using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Terms;

namespace Nailcrow.StandIn.Partners;

/// <summary>
/// A simulated maker: knows every serial, gives two years of warranty unless hands say otherwise, and numbers to send drives back
/// under.
/// </summary>
internal sealed class MakerStandIn(PartnerDoor door)
{
    private const int AdvanceDays = 14;
    private const int ReturnFirstDays = 30;
    private const string Terms = "exchange in advance; media may be kept for a fee";

    private readonly ConcurrentDictionary<string, DateOnly> _until = new();
    private readonly ConcurrentDictionary<string, bool> _reviewed = new();
    private readonly ConcurrentDictionary<Guid, ClaimAnswer> _claims = new();
    private int _last = 60_200;

    public void Map(WebApplication app)
    {
        app.MapPost("/claims", ClaimAsync);
        app.MapPost("/aisle/warranty/{serial}/{until}", Warranty);
        app.MapPost("/aisle/review/{serial}", Review);
        door.MapHands(
            app,
            () =>
                _claims.Values.Select(c => new
                {
                    c.Serial,
                    c.Authorisation,
                    c.DueBy,
                    c.Refused,
                })
        );
    }

    private async Task<IResult> ClaimAsync(HttpContext http, CancellationToken ct)
    {
        var (body, instead) = await door.ReadAsync(http, ct);
        if (instead is not null)
            return instead;
        if (JsonSerializer.Deserialize(body, OutsideJson.Default.ClaimAsk) is not { } ask)
            return PartnerDoor.No(400, "That is no claim.");
        var answer =
            door.Manner == PartnerManner.Wrong ? Answer(ask with { Serial = "X" + ask.Serial })
            : _reviewed.GetValueOrDefault(SerialNumber.Normalise(ask.Serial))
                ? new ClaimAnswer(ask.Serial, UnderReview: true, Says: "Our laboratory looks at the log first.")
            : _claims.GetOrAdd(ask.Claim, _ => Answer(ask));
        return Results.Json(answer, OutsideJson.Default.ClaimAnswer);
    }

    private ClaimAnswer Answer(ClaimAsk ask)
    {
        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        var until = _until.GetValueOrDefault(SerialNumber.Normalise(ask.Serial), today.AddYears(2));
        var from = until.AddYears(-5);
        var warranty = new Warranty(until, from < today ? from : today.AddYears(-1), Terms);
        if (ask.Question == MakerQuestion.Warranty)
            return new(ask.Serial, warranty);
        return until < today
            ? new(ask.Serial, warranty, Refused: string.Create(CultureInfo.InvariantCulture, $"Its warranty ended on {until:yyyy-MM-dd}."))
            : new(
                ask.Serial,
                warranty,
                string.Create(CultureInfo.InvariantCulture, $"AX-{Interlocked.Increment(ref _last)}"),
                today.AddDays(ask.Question == MakerQuestion.AdvanceExchange ? AdvanceDays : ReturnFirstDays),
                Says: ask.Question == MakerQuestion.AdvanceExchange ? "The new one leaves us today." : null,
                LateCost: ask.Question == MakerQuestion.AdvanceExchange ? "180.00 EUR" : null
            );
    }

    /// <summary>Somebody sets until when a drive has warranty.</summary>
    private IResult Warranty(string serial, string until)
    {
        if (!DateOnly.TryParseExact(until, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
            return Results.Text($"'{until}' is no day; write one like 2027-03-31.", statusCode: 409);
        _until[SerialNumber.Normalise(serial)] = day;
        return Results.Text($"{serial} has warranty until {until}.");
    }

    /// <summary>A drive's claims are looked at for a while, or, asked once more, are answered.</summary>
    private IResult Review(string serial)
    {
        var now = _reviewed.AddOrUpdate(SerialNumber.Normalise(serial), true, (_, was) => !was);
        return Results.Text(now ? $"Claims for {serial} are looked at first." : $"Claims for {serial} are answered.");
    }
}
