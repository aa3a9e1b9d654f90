using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;

namespace Nailcrow.Cli.People;

internal static class PeopleCommands
{
    public static Command SignIn()
    {
        var name = new Argument<string?>("NAME")
        {
            Description = "The name you were given; not with --elsewhere.",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var elsewhere = new Option<bool>("--elsewhere")
        {
            Description = "By way of your firm's provider of sign-ins, in a browser on any device.",
        };
        return new Command(
            "sign-in",
            "Sign in; the password is asked for, or taken from NAILCROW_PASSWORD, and so is a one-time or recovery code, from NAILCROW_CODE. "
                + "Whoever was given a password chooses their own, or NAILCROW_NEW_PASSWORD is it. --elsewhere takes neither."
        )
        {
            name,
            elsewhere,
        }.Does(async call =>
        {
            var client = call.Anonymous;
            var (token, me) = (call.Get(name), call.Get(elsewhere)) switch
            {
                (null, true) => await ElsewhereCommands.InAsync(call, client),
                ({ } who, false) => await WithPasswordAsync(call, client, who),
                _ => throw new UsageProblem("Say who you are, as in 'nailcrow sign-in ilka', or '--elsewhere' and no name."),
            };
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

    private static async Task<(Client.People.Token, Client.People.PersonView)> WithPasswordAsync(
        Call call,
        NailcrowClient client,
        string name
    )
    {
        var password = Environment.GetEnvironmentVariable("NAILCROW_PASSWORD") ?? Typed.Hidden(call.Screen, $"Password of {name}: ");
        var token = await InAsync(call, client, name, password);
        client.UseToken(token.AccessToken);
        var me = await client.MeAsync(call.Ct);
        return (token, me.MustChange ? await OwnAsync(call, client, password) : me);
    }

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
