using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Nailcrow.Service.Host;

/// <summary>What cannot even be read gets a sentence that says where it went wrong.</summary>
internal sealed class BadRequestSentences : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext http, Exception exception, CancellationToken ct)
    {
        if (exception is not BadHttpRequestException bad)
            return false;
        await TypedResults.Problem(Sentence(bad), statusCode: bad.StatusCode, title: "Not readable").ExecuteAsync(http);
        return true;
    }

    public static async Task ForBareStatus(StatusCodeContext context)
    {
        var http = context.HttpContext;
        if (!http.Request.Path.StartsWithSegments("/api"))
            return;
        var sentence = http.Response.StatusCode switch
        {
            401 => "Sign in first: POST /api/sign-in with name and password gives a token.",
            403 => "Your roles do not allow this.",
            404 => $"There is no {http.Request.Path} here; /api/openapi.json lists what there is.",
            405 => $"{http.Request.Path} does not take {http.Request.Method}.",
            415 => "Send JSON, with Content-Type: application/json.",
            _ => null,
        };
        if (sentence is not null)
            await TypedResults.Problem(sentence, statusCode: http.Response.StatusCode).ExecuteAsync(http);
    }

    private static string Sentence(BadHttpRequestException bad) =>
        bad.InnerException is JsonException json ? $"The body cannot be read{(json.Path is null ? "" : $" at {json.Path}")}: {FirstLine(json.Message)}"
        : bad.StatusCode == 413 ? "The body is larger than 8 MiB; nothing here needs that much."
        : bad.Message;

    private static string FirstLine(string message)
    {
        var end = message.IndexOf(" Path:", StringComparison.Ordinal);
        return end < 0 ? message : message[..end];
    }
}
