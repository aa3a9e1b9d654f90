using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Rebuilds;

/// <summary>Looking on until the rebuild has ended.</summary>
internal static class WatchCommand
{
    public static Command Build()
    {
        var ticket = Said.Ticket();
        var every = new Option<double>("--every")
        {
            Description = "Seconds between two looks, 1 to 600.",
            HelpName = "SECONDS",
            DefaultValueFactory = _ => 5,
        };
        return new Command("watch", "Look on until it has ended; ends with 1 if it failed or was lost from sight.") { ticket, every }.Does(
            async call =>
            {
                if (call.Get(every) is not (>= 1 and <= 600))
                    throw new UsageProblem($"--every is {call.Get(every)}; accepted: 1 to 600 seconds.");
                await FollowAsync(call, call.Get(ticket), TimeSpan.FromSeconds(call.Get(every)));
            }
        );
    }

    public static async Task FollowAsync(Call call, long ticket, TimeSpan every)
    {
        var looking = new LookingOn(call);
        for (var told = ""; ; await Task.Delay(every, call.Ct))
        {
            if (await looking.AskAsync(() => call.Client.TicketAsync(ticket, call.Ct)) is not { } view)
                continue;
            var look = view.Rebuild.Look;
            if (look.Sentence != told && !call.Json)
                call.Screen.Line($"{DateTime.UtcNow:HH:mm:ss} UTC  {Words.Of(look.State), -9} {Screen.Safe(told = look.Sentence)}");
            if (look.State is not (RebuildState.Done or RebuildState.Failed or RebuildState.NoNews))
                continue;
            if (call.Json)
                call.Screen.Json(view.Rebuild, ContractJson.Default.RebuildView);
            if (look.State != RebuildState.Done)
                throw new Refusal(look.Sentence);
            return;
        }
    }
}
