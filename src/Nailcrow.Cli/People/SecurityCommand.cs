using System.CommandLine;
using System.Globalization;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.People;

/// <summary>Who came in, and who changed what others may do.</summary>
internal static class SecurityCommand
{
    private const int UsualLines = 50;

    public static Command Build()
    {
        var by = Said.Optional("--by", "Only what this person did, or was typed as a name.", "PERSON");
        var what = Said.OneOf<SecurityEvent>("--what", "Only of one kind.", "kind of line");
        var lines = new Option<int>("--lines") { Description = "How many, newest first; 1 to 500.", DefaultValueFactory = _ => UsualLines };
        var before = new Option<long?>("--before")
        {
            Description = "Only lines with a smaller number: where the last page ended.",
            HelpName = "NUMBER",
        };
        return new Command("security", "The security log: who came in or tried to, and who changed what others may do.")
        {
            by,
            what,
            lines,
            before,
        }.Does(async call =>
        {
            var page = await call.Client.SecurityLogAsync(call.Get(by), call.Get(what), call.Get(before), call.Get(lines), call.Ct);
            call.Show(
                page,
                ContractJson.Default.SecurityPage,
                screen =>
                {
                    screen.Table(["", "when", "who", "what", "whom or what", "from", ""], page.Lines.Select(Row));
                    if (page.Next is { } next)
                        screen.Hint($"[dim]older: --before {next}[/]");
                }
            );
        });
    }

    private static string[] Row(SecurityLine line) =>
        [
            line.Seq.ToString(CultureInfo.InvariantCulture),
            line.At.UtcDateTime.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture) + "Z",
            Screen.Safe(line.By),
            Words.Of(line.What),
            Screen.Safe(line.About ?? ""),
            Screen.Safe(line.Address ?? ""),
            Screen.Safe(line.Detail ?? ""),
        ];
}
