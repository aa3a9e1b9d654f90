using Microsoft.AspNetCore.Http.HttpResults;

namespace Nailcrow.Service.Host.Answers;

/// <summary>What somebody without a name here sends: so much of it, within so much time.</summary>
internal static class EventBody
{
    // An event has some hundred bytes; a batch of them some kilobytes.
    private const int MostBytes = 256 * 1024;

    // A sender that dribbles holds a connection; it gets this long.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    public static ProblemHttpResult TooMuch() =>
        TypedResults.Problem(
            $"An event has at most {MostBytes / 1024} kB and is sent within {Patience.TotalSeconds:0} s.",
            statusCode: 413,
            title: "Too large or too slow"
        );

    /// <summary>Null where it is larger, or slower, than any event.</summary>
    public static async Task<byte[]?> ReadAsync(HttpContext http, CancellationToken ct)
    {
        if (http.Request.ContentLength > MostBytes)
            return null;
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(ct);
        patience.CancelAfter(Patience);
        var (buffer, length) = (new byte[MostBytes + 1], 0);
        try
        {
            for (
                int read;
                length < buffer.Length && (read = await http.Request.Body.ReadAsync(buffer.AsMemory(length), patience.Token)) > 0;

            )
                length += read;
            return length > MostBytes ? null : buffer[..length];
        }
        catch (OperationCanceledException) when (!ct.IsCancellationRequested)
        {
            return null;
        }
    }
}
