using System.Text.Encodings.Web;

namespace Nailcrow.Service.People.Elsewhere;

/// <summary>What a browser is told that is on its way from one site to another: pages of their own, since whoever reads them is not in.</summary>
internal static class ElsewherePages
{
    /// <summary>They are not in, and why.</summary>
    public static async Task SayAsync(HttpContext http, string sentence, int status = StatusCodes.Status403Forbidden)
    {
        http.Response.StatusCode = status;
        await WriteAsync(http, "Not signed in", $"""<p>{Safe(sentence)}</p><p><a href="/">Back to the door</a></p>""");
    }

    /// <summary>In so many words who would be whom: the link that led here may have been sent by somebody else.</summary>
    /// <param name="there">Whom the provider has let in, and as whom.</param>
    /// <param name="here">Who they would be here.</param>
    /// <param name="joining">What their yes is sent with, sealed.</param>
    public static Task AskAsync(
        HttpContext http,
        string provider,
        (string FullName, string Name) there,
        (string FullName, string Name) here,
        string joining
    ) =>
        WriteAsync(
            http,
            "Are both you?",
            $"""
            <p>{Safe(provider)} says that you are <strong>{Safe(there.FullName)}</strong> ({Safe(there.Name)}).</p>
            <p>Say yes, and whoever it says so of comes in here as <strong>{Safe(here.FullName)}</strong> ({Safe(here.Name)}).
            Do so only where that is you as well.</p>
            <form method="post" action="/api/sign-in/elsewhere/joined">
            <input type="hidden" name="joining" value="{Safe(joining)}">
            <button>Yes, both are me</button>
            </form>
            <p><a href="/">No, change nothing</a></p>
            """
        );

    private static string Safe(string text) => HtmlEncoder.Default.Encode(text);

    private static async Task WriteAsync(HttpContext http, string title, string body)
    {
        http.Response.ContentType = "text/html; charset=utf-8";
        await http.Response.WriteAsync(
            $$"""
            <!doctype html>
            <html lang="en">
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width">
            <title>{{title}} · Nailcrow</title>
            <style>
            :root { --bone: #f5f2ea; --ink: #17231e; --pine: #0e5a49; --on-pine: #fffdf8; color-scheme: light dark }
            @media (prefers-color-scheme: dark) { :root { --bone: #111815; --ink: #ece7db; --pine: #7fd1b4; --on-pine: #17231e } }
            body { max-width: 34rem; margin: 8vh auto; padding: 0 1rem; font: 18px/1.5 system-ui, sans-serif; background: var(--bone); color: var(--ink) }
            h1 { font-size: 1.3rem }
            a { color: var(--pine) }
            button { font: inherit; font-weight: bold; min-height: 48px; padding: 0 1.5rem; border: 0; border-radius: 3px }
            button { background: var(--pine); color: var(--on-pine) }
            </style>
            <body>
            <h1>{{title}}</h1>
            {{body}}
            </body>
            </html>
            """,
            http.RequestAborted
        );
    }
}
