using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;

namespace Nailcrow.Cli.Returns;

/// <summary>Until when drives are exchanged by their makers.</summary>
internal static class WarrantyCommands
{
    public static Command Build() => new("warranty", "Until when drives are exchanged or paid for by their makers.") { List() };

    private static Command List()
    {
        var find = Said.Optional("--find", "A serial's beginning or end, or any part of a drive model's name.", "TEXT");
        var from = new Option<DateOnly?>("--from") { Description = "Only those that end on this day or later.", HelpName = "DATE" };
        var after = Said.Optional("--after", "The next page: what the page before said.", "TEXT");
        return new Command("list", "Those that end first, first; 'import warranties FILE' brings a list in.") { find, from, after }.Does(
            async call =>
            {
                var page = await call.Client.WarrantiesAsync(call.Get(find), call.Get(from), call.Get(after), call.Ct);
                call.Show(
                    page,
                    ContractJson.Default.WarrantyPage,
                    screen =>
                    {
                        if (page.Warranties.Count == 0)
                            screen.Line(
                                "Nothing is known of any such warranty. 'nailcrow import warranties FILE --write' brings a list in."
                            );
                        foreach (var line in page.Warranties)
                        {
                            var of = line.Known.Serial ?? $"every {line.Known.Model}";
                            screen.Line(
                                $"{(line.Ended ? $"[dim]{Screen.Safe(of)}[/]" : $"[bold]{Screen.Safe(of)}[/]")}  {Screen.Safe(line.Says)}"
                            );
                        }
                        if (page.Next is { } more)
                            screen.Line($"[dim]more: --after \"{Screen.Safe(more)}\"[/]");
                    }
                );
            }
        );
    }
}
