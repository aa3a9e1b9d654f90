using Microsoft.Net.Http.Headers;
using Nailcrow.Service.Host.Answers;

namespace Nailcrow.Service.Host;

/// <summary>Serves the console that was built into wwwroot.</summary>
internal static class ConsoleFiles
{
    // Beside a published service; three folders up from bin/Release/net10.0, where a built one runs.
    private static readonly string[] Places = ["wwwroot", "../../../wwwroot"];

    /// <summary>Where the built console lies, wherever the service was started from; null where there is none.</summary>
    public static string? Beside =>
        Places
            .Select(place => Path.GetFullPath(Path.Combine(AppContext.BaseDirectory, place)))
            .FirstOrDefault(folder => File.Exists(Path.Combine(folder, "index.html")));

    public static void UseSecurityHeaders(this WebApplication app) =>
        app.Use(
            (http, next) =>
            {
                var headers = http.Response.Headers;
                headers.XContentTypeOptions = "nosniff";
                headers["Referrer-Policy"] = "same-origin";
                // The component library writes style elements at run time; scripts come from here alone.
                headers.ContentSecurityPolicy =
                    "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'";
                return next(http);
            }
        );

    public static void UseConsoleFiles(this WebApplication app) =>
        app.UseStaticFiles(new StaticFileOptions { OnPrepareResponse = static file => Cache(file.Context) });

    public static void MapConsolePages(this WebApplication app)
    {
        if (File.Exists(Path.Combine(app.Environment.WebRootPath ?? "", "index.html")))
            app.MapFallbackToFile("index.html").AllowAnonymous();
        else
            app.MapFallback(() => Refusals.NotFound("The console is not built; ./demo.sh builds it.")).AllowAnonymous();
    }

    /// <summary>Built files carry a hash in their names and never change; the page that names them may.</summary>
    private static void Cache(HttpContext http) =>
        http.Response.Headers[HeaderNames.CacheControl] = http.Request.Path.StartsWithSegments("/assets")
            ? "public, max-age=31536000, immutable"
            : "no-cache";
}
