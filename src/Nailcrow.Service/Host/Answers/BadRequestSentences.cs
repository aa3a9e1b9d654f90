using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Diagnostics;

namespace Nailcrow.Service.Host.Answers;

/// <summary>What cannot even be read gets a sentence that says where it went wrong.</summary>
internal sealed partial class BadRequestSentences : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext http, Exception exception, CancellationToken ct)
    {
        var (sentence, status) = exception switch
        {
            BadHttpRequestException bad => (Sentence(bad), bad.StatusCode),
            _ => (UnreadableJson.OfMissingKind(exception), 400),
        };
        if (sentence is null)
            return false;
        await TypedResults.Problem(sentence, statusCode: status, title: "Not readable").ExecuteAsync(http);
        return true;
    }

    public static async Task ForBareStatus(StatusCodeContext context)
    {
        var http = context.HttpContext;
        if (!http.Request.Path.StartsWithSegments("/api"))
            return;
        var sentence = http.Response.StatusCode switch
        {
            400 =>
                $"Something in '{http.Request.Path}{Uri.UnescapeDataString(http.Request.QueryString.ToString())}' is not of the kind that "
                    + "is asked for there, a word where a number should be; /api/openapi.json says what each takes.",
            401 => "Sign in first: POST /api/sign-in with name and password gives a token.",
            403 => "Your roles do not allow this.",
            404 => $"There is no {http.Request.Path} here; /api/openapi.json lists what there is.",
            _ => null,
        };
        if (sentence is not null)
            await TypedResults.Problem(sentence, statusCode: http.Response.StatusCode).ExecuteAsync(http);
    }

    private static string Sentence(BadHttpRequestException bad) =>
        bad.InnerException is JsonException json ? UnreadableJson.Sentence(json)
        : bad.StatusCode == 413 ? "The body is larger than 8 MiB; nothing here needs that much."
        : Unbound().Match(bad.Message) is { Success: true } unbound
            ? $"'{unbound.Groups[3].Value}' does not go into '{unbound.Groups[2].Value}'; accepted: {Plain(unbound.Groups[1].Value)}."
        : bad.Message;

    private static string Plain(string type) =>
        type.TrimEnd('?') switch
        {
            "int" or "long" => "a whole number",
            "bool" => "true or false",
            _ => "what /api/openapi.json says",
        };

    [GeneratedRegex("Failed to bind parameter \"(\\S+) (\\w+)\" from \"(.*)\"")]
    private static partial Regex Unbound();
}
