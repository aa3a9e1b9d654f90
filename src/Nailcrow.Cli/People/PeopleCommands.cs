using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Client;

namespace Nailcrow.Cli.People;

internal static class PeopleCommands
{
    public static Command SignIn()
    {
        var name = Said.Text("NAME", "The name you were given.");
        return new Command("sign-in", "Sign in; the password is asked for, or taken from NAILCROW_PASSWORD.") { name }.Does(async call =>
        {
            var password =
                Environment.GetEnvironmentVariable("NAILCROW_PASSWORD") ?? Hidden(call.Screen, $"Password of {call.Get(name)}: ");
            var client = call.Anonymous;
            var token = await client.SignInAsync(call.Get(name), password, call.Ct);
            client.UseToken(token.AccessToken);
            var me = await client.MeAsync(call.Ct);
            Sessions.Read().With(new(me.Name, call.Service, token.AccessToken)).Save();
            call.Show(
                me,
                ContractJson.Default.PersonView,
                screen =>
                    screen.Line(
                        $"Signed in as {Screen.Safe(me.FullName)} ({Screen.Safe(me.Name)}): {People.Roles(me)}. Good for {token.ExpiresIn / 3600} hours."
                    )
            );
        });
    }

    public static Command SignOut() =>
        new Command("sign-out", "Forget the token that is kept on this machine.").Does(call =>
        {
            var name = call.Session?.Name ?? throw new NotSignedIn("Nobody is signed in.");
            Sessions.Read().Without(name).Save();
            call.Screen.Line($"{Screen.Safe(name)} is signed out.");
            return Task.CompletedTask;
        });

    public static Command Who() =>
        new Command("who", "Who you are, and what you may do.").Does(async call =>
        {
            var me = await call.Client.MeAsync(call.Ct);
            call.Show(
                me,
                ContractJson.Default.PersonView,
                screen =>
                {
                    screen.Line(
                        $"{Screen.Safe(me.FullName)} ({Screen.Safe(me.Name)}): {People.Roles(me)}, at {Screen.Safe(call.Service.ToString())}"
                    );
                    foreach (var other in Sessions.Read().All.Where(s => s.Name != me.Name))
                        screen.Line($"[dim]also signed in here: {Screen.Safe(other.Name)} (--as {Screen.Safe(other.Name)})[/]");
                }
            );
        });

    private static string Hidden(Screen screen, string question)
    {
        if (Console.IsInputRedirected)
            return screen.Ask(question);
        Console.Error.Write(question);
        var typed = new System.Text.StringBuilder();
        for (var key = Console.ReadKey(intercept: true); key.Key != ConsoleKey.Enter; key = Console.ReadKey(intercept: true))
            if (key.Key == ConsoleKey.Backspace)
                typed.Length = Math.Max(0, typed.Length - 1);
            else
                typed.Append(key.KeyChar);
        Console.Error.WriteLine();
        return typed.ToString();
    }
}
