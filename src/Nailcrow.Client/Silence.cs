using System.Net;
using System.Text.Json;

namespace Nailcrow.Client;

/// <summary>
/// No answer, or none of the service's: it is away for now, and nothing is known of what became of what was sent. Whoever looks on goes
/// on from it; a refusal is never one.
/// </summary>
public static class Silence
{
    /// <summary>Nothing came back, or nothing whole, or only the word of something between that nobody answers.</summary>
    public static bool Is(Exception e, CancellationToken ct) =>
        e switch
        {
            HttpRequestException or HttpIOException or JsonException => true,
            ApiProblem problem => IsToldBy(problem.Status),
            OperationCanceledException => !ct.IsCancellationRequested,
            _ => false,
        };

    /// <summary>Somebody took the call, and it was lost before the answer was whole: a node was killed, or the line was cut.</summary>
    public static bool IsOnTheWay(Exception e) =>
        e switch
        {
            HttpRequestException { HttpRequestError: var error } => error is HttpRequestError.ResponseEnded or HttpRequestError.Unknown,
            HttpIOException => true,
            ApiProblem problem => problem.IsFromBetween,
            _ => false,
        };

    /// <summary>Status codes by which a gateway tells that nobody answers behind it (RFC 9110 15.6.3 to 15.6.5).</summary>
    internal static bool IsToldBy(HttpStatusCode status) =>
        status is HttpStatusCode.BadGateway or HttpStatusCode.ServiceUnavailable or HttpStatusCode.GatewayTimeout;
}
