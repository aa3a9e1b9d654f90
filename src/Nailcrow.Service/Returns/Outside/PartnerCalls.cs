using System.Globalization;
using System.Net;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Returns.Outside;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>What came of one call to a partner.</summary>
internal abstract record Heard<T>
{
    private Heard() { }

    public sealed record Answer(T Body) : Heard<T>;

    /// <summary>They say no, and why; asking again changes nothing.</summary>
    public sealed record No(string Why) : Heard<T>;

    /// <summary>Not reached, not understood, or not now: it is tried again.</summary>
    public sealed record Trouble(string Says, TimeSpan? After = null) : Heard<T>;
}

/// <summary>One signed call over HTTP to a carrier or maker. Whatever it does, this ends in time with a sentence.</summary>
internal sealed class PartnerCalls(HttpClient http, Partners partners, TimeProvider time)
{
    // An answer has some hundred bytes; what is larger is something else.
    public const int MostBytes = 256 * 1024;

    private const int MostOfAnAnswerShown = 200;

    /// <param name="id">The errand's id: the same errand sent twice is one to them.</param>
    /// <param name="body">Null to ask only.</param>
    public async Task<Heard<T>> AskAsync<T>(
        Partner partner,
        HttpMethod method,
        string path,
        Guid id,
        byte[]? body,
        JsonTypeInfo<T> form,
        CancellationToken ct
    )
    {
        if (await partners.SecretAsync(partner.Name, ct) is not { } secret)
            return new Heard<T>.Trouble(
                $"What {partner.Name} and we sign with was kept under keys that are gone; an administrator sets it anew."
            );
        using var request = new HttpRequestMessage(method, partner.Address.TrimEnd('/') + path);
        Sign(request, id, body ?? [], secret);
        if (body is not null)
        {
            request.Content = new ByteArrayContent(body);
            request.Content.Headers.ContentType = new("application/json");
        }
        try
        {
            using var response = await http.SendAsync(request, ct);
            return await HeardAsync(partner, response, form, ct);
        }
        catch (TaskCanceledException) when (!ct.IsCancellationRequested)
        {
            return new Heard<T>.Trouble($"{partner.Name} did not answer within {http.Timeout.TotalSeconds:0} s.");
        }
        catch (Exception e) when (e is HttpRequestException or IOException)
        {
            return new Heard<T>.Trouble($"{partner.Name} was not reached: {Innermost(e).TrimEnd('.')}.");
        }
    }

    private void Sign(HttpRequestMessage request, Guid id, byte[] body, string secret)
    {
        var stamp = time.GetUtcNow().ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture);
        request.Headers.Add("webhook-id", id.ToString());
        request.Headers.Add("webhook-timestamp", stamp);
        request.Headers.Add("webhook-signature", SignedEvents.Sign(id.ToString(), stamp, body, secret));
        request.Headers.Accept.Add(new("application/json"));
    }

    private static async Task<Heard<T>> HeardAsync<T>(
        Partner partner,
        HttpResponseMessage response,
        JsonTypeInfo<T> form,
        CancellationToken ct
    )
    {
        var text = await response.Content.ReadAsStringAsync(ct);
        var status = (int)response.StatusCode;
        if (response.StatusCode is HttpStatusCode.Conflict or HttpStatusCode.UnprocessableEntity)
            return new Heard<T>.No(Detail(text) ?? $"answered {status} and no reason.");
        if (!response.IsSuccessStatusCode)
            return new Heard<T>.Trouble(
                status switch
                {
                    401 or 403 => $"{partner.Name} does not take our signature ({status}); an administrator compares what both sign with.",
                    404 => $"{partner.Name} knows nothing at {response.RequestMessage?.RequestUri}; is its address right?",
                    429 => $"{partner.Name} asks for time.",
                    _ => $"{partner.Name} answered {status}{(Detail(text) is { } detail ? $": {detail}" : "")}",
                },
                response.Headers.RetryAfter?.Delta
            );
        try
        {
            if (JsonSerializer.Deserialize(text, form) is { } read)
                return new Heard<T>.Answer(read);
        }
        catch (JsonException)
        {
            // told below, with what came
        }
        return new Heard<T>.Trouble($"{partner.Name} answered what is no answer: {Shown(text)}");
    }

    /// <summary>The reason of an RFC 9457 problem; null where it is none.</summary>
    private static string? Detail(string text)
    {
        try
        {
            using var problem = JsonDocument.Parse(text);
            return
                problem.RootElement.ValueKind == JsonValueKind.Object
                && problem.RootElement.TryGetProperty("detail", out var detail)
                && detail.GetString() is { Length: > 0 } said
                ? Shown(said)
                : null;
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException)
        {
            return null;
        }
    }

    /// <summary>What somebody outside said, in one line that is no longer than a line is.</summary>
    public static string Shown(string text)
    {
        var line = Visible.Text(string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)));
        return line.Length == 0 ? "nothing" : Shortened.To(line, MostOfAnAnswerShown);
    }

    private static string Innermost(Exception e) => e.InnerException is { } inner ? Innermost(inner) : e.Message;
}
