using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Admin;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Admin;

/// <summary>Everything that is kept, held against itself and against a seal.</summary>
internal static class VerifyCommand
{
    public static Command Build()
    {
        var seal = Said.Optional("--seal", "Hold the record against this seal; left out, the newest in the database.", "FILE");
        var recordOnly = new Option<bool>("--record-only")
        {
            Description = "Leave out what takes longest: reading every entry, and the lists.",
        };
        return new Command("verify", "Hold everything that is kept against itself and a seal, and name all that is not as it was written.")
        {
            seal,
            recordOnly,
        }.Does(async call =>
        {
            var ask = new VerifyAsk(call.Get(seal) is { } file ? await File.ReadAllTextAsync(file, call.Ct) : null, call.Get(recordOnly));
            var found = await call.Client.VerifyAsync(call.Ct, ask, call.Screen.Progress);
            call.Screen.ProgressEnds();
            call.Show(found, ContractJson.Default.Verified, screen => Tell(screen, found));
            if (!found.Holds)
                throw new Refusal($"Not everything is as it should be: {Count(found)}.");
        });
    }

    private static void Tell(Screen screen, Verified found)
    {
        if (found.Holds)
            screen.Line($"All {found.Entries} entries of {found.Tickets} tickets{More(found)} are as they were written.");
        if (found.Holds && found.Sealed > 0)
            screen.Line($"The first {found.Sealed} of them are what was sealed.");
        if (found.Troubles.Count > 0)
            screen.Table(["what", "where"], found.Troubles.Select(t => new[] { $"[bold]{Words.Of(t.Kind)}[/]", Screen.Safe(t.Sentence) }));
        if (found.More > 0)
            screen.Line($"... and {found.More} more.");
    }

    private static string More(Verified found)
    {
        var more = new List<string>();
        Add(found.Movements, "line of the ledger", "lines of the ledger");
        Add(found.SecurityLines, "line of the security log", "lines of the security log");
        Add(found.Pictures, "picture", "pictures");
        return more.Count == 0 ? "" : $"{string.Concat(more.SkipLast(1).Select(m => $", {m}"))} and {more[^1]}";

        void Add(long many, string one, string several)
        {
            if (many > 0)
                more.Add($"{many} {(many == 1 ? one : several)}");
        }
    }

    private static string Count(Verified found) =>
        string.Join(", ", found.Troubles.GroupBy(t => t.Kind).OrderBy(g => g.Key).Select(g => $"{g.Count()} {Words.Of(g.Key)}"))
        + (found.More > 0 ? $", and {found.More} more" : "");
}
