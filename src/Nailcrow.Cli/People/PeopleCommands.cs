using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Client;

namespace Nailcrow.Cli.People;

internal static class PeopleCommands
{
    public static Command SignIn()
    {
        var name = Said.Text("NAME", "The name you were given.");
        return new Command(
            "sign-in",
            "Sign in; the password is asked for, or taken from NAILCROW_PASSWORD, and so is a one-time or recovery code, from NAILCROW_CODE. "
                + "Whoever was given a password chooses their own, or NAILCROW_NEW_PASSWORD is it."
        )
        {
            name,
        }.Does(async call =>
        {
            var password =
                Environment.GetEnvironmentVariable("NAILCROW_PASSWORD") ?? Typed.Hidden(call.Screen, $"Password of {call.Get(name)}: ");
            var client = call.Anonymous;
            var token = await InAsync(call, client, call.Get(name), password);
            client.UseToken(token.AccessToken);
            var me = await client.MeAsync(call.Ct);
            if (me.MustChange)
                me = await OwnAsync(call, client, password);
            Sessions.Read().With(new(me.Name, call.Service, token.AccessToken)).Save();
            if (me.MustSetUp)
                call.Screen.Hint(
                    "Your roles take a second factor; 'nailcrow second-factor codes' sets one up, and nothing else works before."
                );
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
        new Command("sign-out", "End the sign-in that is kept on this machine.").Does(async call =>
        {
            var name = call.Session?.Name ?? throw new NotSignedIn("Nobody is signed in.");
            var told = await EndedThereAsync(call);
            Sessions.Read().Without(name).Save();
            call.Screen.Line(
                told
                    ? $"{Screen.Safe(name)} is signed out."
                    : $"{Screen.Safe(name)} is forgotten here, and {Screen.Safe(call.Service.ToString())} could not be told: the sign-in runs out by itself, "
                        + "or 'nailcrow person end' ends it."
            );
        });

    public static Command Password() =>
        new Command(
            "password",
            "Change your own password: the one you have and the next are asked for, or taken from NAILCROW_PASSWORD and "
                + "NAILCROW_NEW_PASSWORD. Wherever else you are signed in, you are not any more."
        ).Does(async call =>
        {
            var now = Environment.GetEnvironmentVariable("NAILCROW_PASSWORD") ?? Typed.Hidden(call.Screen, "The password you have: ");
            var client = call.Client;
            var me = await client.ChangePasswordAsync(now, Typed.New(call.Screen, "The next one (12 characters or more): "), call.Ct);
            call.Show(
                me,
                ContractJson.Default.PersonView,
                screen => screen.Line($"{Screen.Safe(me.Name)} has another password; every other sign-in of theirs is over.")
            );
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

    private static async Task<Client.People.Token> InAsync(Call call, NailcrowClient client, string name, string password)
    {
        var code = Environment.GetEnvironmentVariable("NAILCROW_CODE");
        try
        {
            return await client.SignInAsync(name, password, call.Ct, code);
        }
        catch (ApiProblem wanted) when (wanted.Type == ProblemTypes.SecondFactor && code is null)
        {
            call.Screen.Hint(Screen.Safe(wanted.Message));
            return await client.SignInAsync(name, password, call.Ct, Typed.Hidden(call.Screen, "Code: "));
        }
    }

    private static async Task<Client.People.PersonView> OwnAsync(Call call, NailcrowClient client, string given)
    {
        call.Screen.Hint("Your password was given to you by somebody else: choose one of your own now.");
        return await client.ChangePasswordAsync(given, Typed.New(call.Screen, "Your own (12 characters or more): "), call.Ct);
    }

    /// <summary>Whether the service knows of it; one that is gone, or has ended it already, needs no telling.</summary>
    private static async Task<bool> EndedThereAsync(Call call)
    {
        try
        {
            await call.Client.SignOutAsync(call.Ct);
            return true;
        }
        catch (ApiProblem)
        {
            return true;
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException)
        {
            return false;
        }
    }
}
