using System.CommandLine;
using System.Diagnostics;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.People;

/// <summary>Coming in by way of a provider of sign-ins, which is looked at in a browser while the command waits (RFC 8628).</summary>
internal static class ElsewhereCommands
{
    public static Command Build() =>
        new("elsewhere", "Whom your firm's provider of sign-ins means by you; 'sign-in --elsewhere' comes in by it.") { Join(), End() };

    public static Command EndOther()
    {
        var name = PersonCommands.Name();
        return new Command(
            "elsewhere-end",
            "Nobody comes in as this person by way of a provider of sign-ins any more; wherever somebody has, they are out."
        )
        {
            name,
        }.Does(async call =>
        {
            await call.Client.PartElsewhereOfAsync(call.Get(name), call.Ct);
            call.Screen.Line($"{Screen.Safe(call.Get(name))} comes in by no provider of sign-ins any more.");
        });
    }

    private static Command Join() =>
        new Command("join", "Say in a browser whom the provider means by you. Your password is asked for once more.").Does(async call =>
        {
            var join = await call.Client.JoinElsewhereAsync(SecondFactorCommands.Password(call), call.Ct);
            call.Show(
                join,
                ContractJson.Default.ElsewhereJoining,
                screen => screen.Line($"Open this in a browser within five minutes, and sign in there as yourself: {Screen.Safe(join.At)}")
            );
        });

    private static Command End() =>
        new Command("end", "The provider lets nobody in as you any more. Your password is asked for once more.").Does(async call =>
        {
            await call.Client.PartElsewhereAsync(SecondFactorCommands.Password(call), call.Ct);
            call.Screen.Line("You come in with your password alone now.");
        });

    public static async Task<(Token, PersonView)> InAsync(Call call, NailcrowClient client)
    {
        var asked = await client.AskDeviceAsync(call.Ct);
        Say(call, $"Open {asked.At} in a browser, on any device, and type {asked.Code} there.");
        if (asked.AtWithCode is { } full)
            Say(call, $"Or open {full}, and see that it shows the same code.");
        Say(call, $"This waits for {Math.Max(1, asked.LastsSeconds / 60)} minutes; Ctrl-C ends it.");
        var token = await WaitedForAsync(client, asked, call.Ct);
        client.UseToken(token.AccessToken);
        return (token, await client.MeAsync(call.Ct));
    }

    /// <summary>A program that reads the answer has somebody beside it who reads this.</summary>
    private static void Say(Call call, string sentence)
    {
        if (call.Json)
            Console.Error.WriteLine(Visible.Text(sentence));
        else
            call.Screen.Line(Screen.Safe(sentence));
    }

    /// <summary>Until the service lets somebody in or refuses; one that is not reached for a moment is asked again, while the code is good.</summary>
    private static async Task<Token> WaitedForAsync(NailcrowClient client, DeviceAsked asked, CancellationToken ct)
    {
        var (since, lasts) = (Stopwatch.GetTimestamp(), TimeSpan.FromSeconds(asked.LastsSeconds));
        for (var wait = TimeSpan.FromSeconds(asked.AgainAfterSeconds); ; )
        {
            await Task.Delay(wait, ct);
            try
            {
                (var token, wait) = await client.ShowDeviceAsync(asked.Handle, ct);
                if (token is not null)
                    return token;
            }
            catch (Exception e) when (Silence.Is(e, ct) && Stopwatch.GetElapsedTime(since) < lasts)
            {
                // It is started anew, or the line is down: whoever types the code elsewhere has it kept with the provider.
            }
        }
    }
}
