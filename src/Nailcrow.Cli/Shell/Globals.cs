using System.CommandLine;
using System.Globalization;

namespace Nailcrow.Cli.Shell;

/// <summary>Options that every command takes.</summary>
internal static class Globals
{
    public static readonly Option<bool> Json = new("--json")
    {
        Description = "Print JSON with stable fields instead of text.",
        Recursive = true,
    };

    public static readonly Option<Uri?> Service = new("--service")
    {
        Description = "Where Nailcrow answers. Default: NAILCROW_SERVICE, else where you signed in, else http://127.0.0.1:7420.",
        HelpName = "URL",
        Recursive = true,
        CustomParser = result =>
            Uri.TryCreate(result.Tokens[0].Value, UriKind.Absolute, out var url) && url.Scheme is "http" or "https" ? url : Refuse(result),
    };

    public static readonly Option<string?> As = new("--as")
    {
        Description = "Act as this signed-in person instead of the last one who signed in.",
        HelpName = "NAME",
        Recursive = true,
    };

    public static readonly Option<DateTimeOffset?> At = new("--at")
    {
        Description = "When it happened, if not just now: what was seen on site and is written down later. As 2026-03-01T08:00Z.",
        HelpName = "TIME",
        Recursive = true,
        CustomParser = result =>
            DateTimeOffset.TryParse(result.Tokens[0].Value, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at)
                ? at
                : NoTime(result),
    };

    private static DateTimeOffset? NoTime(System.CommandLine.Parsing.ArgumentResult result)
    {
        result.AddError($"'{result.Tokens[0].Value}' is no time; write one like 2026-03-01T08:00Z.");
        return null;
    }

    private static Uri? Refuse(System.CommandLine.Parsing.ArgumentResult result)
    {
        result.AddError($"'{result.Tokens[0].Value}' is no service address; write one like http://127.0.0.1:7420.");
        return null;
    }
}
