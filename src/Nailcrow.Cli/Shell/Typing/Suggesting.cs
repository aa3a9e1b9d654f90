using System.CommandLine;
using System.CommandLine.Completions;
using System.CommandLine.Invocation;
using System.CommandLine.Parsing;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.People;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Cli.Shell.Typing;

/// <summary>
/// What a shell may offer next: each word once, and what only the service knows (tickets, machines, bays, people, serials) for
/// whatever is named so in the help of a command.
/// </summary>
internal static class Suggesting
{
    // Somebody presses a key and waits; who is out of contact types it out.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);

    private static readonly IReadOnlyDictionary<string, Func<Call, ParseResult, Task<IEnumerable<string>>>> Known = new Dictionary<
        string,
        Func<Call, ParseResult, Task<IEnumerable<string>>>
    >
    {
        ["TICKET"] = async (call, _) => (await call.Client.TicketsAsync(new(), call.Ct)).Tickets.Select(t => TicketNumber.Text(t.Number)),
        ["ASSET"] = async (call, _) => (await call.Client.AppliancesAsync(null, call.Ct)).Appliances.Select(a => a.Appliance.Asset),
        ["BAY"] = BaysAsync,
        ["ENGINEER"] = async (call, _) =>
            (await call.Client.PeopleAsync(call.Ct))
                .People.Where(p => p.DisabledAt is null && p.Roles.Contains(Role.Engineer))
                .Select(p => p.Name),
        ["PERSON"] = async (call, _) => (await call.Client.PeopleAsync(call.Ct)).People.Select(p => p.Name),
        ["PROCEDURE"] = async (call, _) => (await call.Client.ProceduresAsync(call.Ct)).Procedures.Select(p => p.Id).OfType<string>(),
        ["SERIAL"] = SerialsAsync,
    };

    public static RootCommand Suggests(this RootCommand root)
    {
        foreach (var directive in root.Directives.OfType<SuggestDirective>())
            directive.Action = new EachOnce(root, directive);
        Everywhere(root);
        return root;
    }

    private static void Everywhere(Command command)
    {
        foreach (var argument in command.Arguments)
        foreach (var what in argument.Name.Split('|').Where(Known.ContainsKey))
        {
            argument.HelpName ??= argument.Name; // else its help lists all that there are
            argument.CompletionSources.Add(asked => Ask(asked, what));
        }
        foreach (var option in command.Options)
        foreach (var what in (option.HelpName ?? "").Split('|').Where(Known.ContainsKey))
            option.CompletionSources.Add(asked => Ask(asked, what));
        foreach (var inner in command.Subcommands)
            Everywhere(inner);
    }

    private static IEnumerable<CompletionItem> Ask(CompletionContext asked, string what)
    {
        try
        {
            using var patience = new CancellationTokenSource(Patience);
            var call = new Call(asked.ParseResult, patience.Token);
            return [.. Known[what](call, asked.ParseResult).GetAwaiter().GetResult().Select(word => new CompletionItem(word))];
        }
        catch (Exception)
        {
            return []; // nobody signed in, nobody there, not permitted: a key was pressed, and there is nothing to offer
        }
    }

    private static async Task<IEnumerable<string>> BaysAsync(Call call, ParseResult typed) =>
        Typed(typed, "TICKET") is { } ticket && TicketNumber.Parse(ticket).Is(out var number, out _)
            ? Labels((await call.Client.TicketAsync(number, call.Ct)).Latest)
        : Typed(typed, "ASSET") is { } asset ? Labels((await call.Client.BaysAsync(asset, call.Ct)).Snapshot)
        : [];

    private static IEnumerable<string> Labels(Snapshot? snapshot) => snapshot?.Bays.Select(b => b.Label) ?? [];

    private static async Task<IEnumerable<string>> SerialsAsync(Call call, ParseResult typed)
    {
        if (Typed(typed, "TICKET") is not { } ticket || !TicketNumber.Parse(ticket).Is(out var number, out _))
            return [];
        var view = await call.Client.TicketAsync(number, call.Ct);
        return view.Parts.Select(p => p.Serial).Concat(view.Custody.Select(c => c.Serial));
    }

    /// <summary>What was typed for an argument or option of this name; null where nothing was yet.</summary>
    private static string? Typed(ParseResult typed, string name)
    {
        var command = typed.CommandResult.Command;
        SymbolResult? result =
            command.Arguments.FirstOrDefault(a => a.Name == name) is { } argument ? typed.GetResult(argument)
            : command.Options.FirstOrDefault(o => o.HelpName == name) is { } option ? typed.GetResult(option)
            : null;
        return result?.Tokens is [{ Value: var first }, ..] ? first : null;
    }

    private sealed class EachOnce(RootCommand root, Directive directive) : SynchronousCommandLineAction
    {
        public override int Invoke(ParseResult parsed)
        {
            var line = parsed.Tokens.LastOrDefault(t => t.Type != TokenType.Directive)?.Value ?? "";
            var at = int.TryParse(parsed.GetResult(directive)?.Values.FirstOrDefault(), out var position) ? position : line.Length;
            var shown = root.Parse(line).GetCompletions(Math.Clamp(at, 0, line.Length)).Select(c => c.Label).Where(IsWord).Distinct();
            foreach (var word in shown)
                parsed.InvocationConfiguration.Output.WriteLine(word);
            return (int)ExitCode.Done;
        }

        // '--help' is also understood as '-h', '-?', '/h' and '/?': one of them is enough to be offered.
        private static bool IsWord(string label) => !label.StartsWith('/') && (label is not ['-', _]);
    }
}
