using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Intake;

namespace Nailcrow.StandIn.Partners;

/// <summary>What carrier and maker have in common: who may call, how they behave, and hands at them.</summary>
internal sealed class PartnerDoor(string secret)
{
    private static readonly TimeSpan SlowAnswer = TimeSpan.FromSeconds(5);

    public PartnerManner Manner { get; private set; }

    /// <summary>How often somebody called, and was let in.</summary>
    public int Calls => _calls;

    private int _calls;

    public string Secret => secret;

    /// <summary>Reads a signed call; what is done instead of answering it is given back.</summary>
    public async Task<(byte[] Body, IResult? Instead)> ReadAsync(HttpContext http, CancellationToken ct)
    {
        using var read = new MemoryStream();
        await http.Request.Body.CopyToAsync(read, ct);
        var (body, headers) = (read.ToArray(), http.Request.Headers);
        if (
            SignedEvents.Problem(
                headers["webhook-id"],
                headers["webhook-timestamp"],
                headers["webhook-signature"],
                body,
                secret,
                DateTimeOffset.UtcNow
            ) is
            { } problem
        )
            return (body, No(401, problem));
        Counts();
        return (body, await InsteadAsync(http, ct));
    }

    /// <summary>Somebody called, and was let in.</summary>
    public void Counts() => Interlocked.Increment(ref _calls);

    public static ProblemHttpResult No(int status, string detail) => TypedResults.Problem(detail, statusCode: status);

    public void MapHands(WebApplication app, Func<object> look)
    {
        app.MapGet(
            "/aisle/",
            () =>
                Results.Json(
                    new
                    {
                        Manner = Manner.ToString().ToLowerInvariant(),
                        Calls,
                        Now = look(),
                    }
                )
        );
        app.MapPost("/aisle/behave/{manner}", Behave);
    }

    private IResult Behave(string manner)
    {
        if (!Enum.TryParse<PartnerManner>(manner, ignoreCase: true, out var wanted))
            return Results.Text(
                $"'{manner}' is no manner; accepted: {string.Join(", ", Enum.GetNames<PartnerManner>()).ToLowerInvariant()}.",
                statusCode: 409
            );
        Manner = wanted;
        return Results.Text($"It behaves now: {wanted.ToString().ToLowerInvariant()}.");
    }

    private async Task<IResult?> InsteadAsync(HttpContext http, CancellationToken ct)
    {
        switch (Manner)
        {
            case PartnerManner.Slow:
                await Task.Delay(SlowAnswer, ct);
                return null;
            case PartnerManner.Hangs:
                await Task.Delay(Timeout.Infinite, ct);
                return null;
            case PartnerManner.Down:
                return No(503, "We are down for the night.");
            case PartnerManner.Garbage:
                return Results.Text("<html><body>Welcome to our new portal!</body></html>", "text/html");
            case PartnerManner.Refuses when http.Request.Method == HttpMethods.Post:
                return No(422, "We do not serve this address.");
            case PartnerManner.Flood:
                var line = new byte[1024 * 1024];
                for (var i = 0; i < 200; i++)
                    await http.Response.Body.WriteAsync(line, ct);
                return Results.Empty;
            default:
                return null;
        }
    }
}
