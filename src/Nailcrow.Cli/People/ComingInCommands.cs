using System.CommandLine;
using System.Globalization;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.People;

/// <summary>Where somebody is signed in, and the keys that scripts act with in their name.</summary>
internal static class ComingInCommands
{
    public static Command SignIns()
    {
        var name = Somebody();
        return new Command("sign-ins", "Where you are signed in, and your keys; an administrator sees anybody's.") { name }.Does(
            async call =>
            {
                var comings = await call.Client.ComingsInAsync(await WhoseAsync(call, name), call.Ct);
                call.Show(comings, ContractJson.Default.ComingsIn, screen => Draw(screen, comings));
            }
        );
    }

    public static Command End()
    {
        var (id, name) = (Said.Text("ID", "Of a sign-in or a key, as 'person sign-ins' shows it; the beginning is enough."), Somebody());
        return new Command("end", "End a sign-in or a key: out within seconds.") { id, name }.Does(async call =>
        {
            var whose = await WhoseAsync(call, name);
            var comings = await call.Client.ComingsInAsync(whose, call.Ct);
            bool Meant(Guid one) =>
                Short(one).StartsWith(call.Get(id), StringComparison.OrdinalIgnoreCase) || one.ToString() == call.Get(id);
            var (sessions, keys) = (comings.Sessions.Where(s => Meant(s.Id)).ToList(), comings.Keys.Where(k => Meant(k.Id)).ToList());
            if (sessions.Count + keys.Count != 1)
                throw new Refusal(
                    sessions.Count + keys.Count == 0
                        ? $"{whose} has no sign-in and no key '{call.Get(id)}'; 'nailcrow person sign-ins' lists them."
                        : $"'{call.Get(id)}' begins more than one; write more of it."
                );
            foreach (var session in sessions)
                await call.Client.EndSessionAsync(whose, session.Id, call.Ct);
            foreach (var key in keys)
                await call.Client.EndKeyAsync(whose, key.Id, call.Ct);
            call.Screen.Line(
                $"Ended: {Screen.Safe(sessions.Select(s => s.Device).Concat(keys.Select(k => $"the key '{k.Name}'")).Single())}."
            );
        });
    }

    public static Command Keys() => new("key", "Keys that scripts act with in your name.") { Make() };

    private static Command Make()
    {
        var name = Said.Text("NAME", "What it is for, as 'night report'.");
        var until = new Option<DateOnly?>("--until")
        {
            Description = "Its last day, as 2026-12-31; 90 days from today where it is not said, a year at most.",
            HelpName = "DAY",
        };
        var roles = Said.Optional("--roles", "Some of your roles, comma-separated; all of them where it is not said.", "ROLES");
        var reads = new Option<bool>("--read-only") { Description = "It looks at everything its roles may, and writes nothing." };
        return new Command("make", "Make a key. It is shown this once; a script has it in NAILCROW_KEY.")
        {
            name,
            until,
            roles,
            reads,
        }.Does(async call =>
        {
            var me = await call.Client.MeAsync(call.Ct);
            var day = call.Get(until) ?? DateOnly.FromDateTime(DateTime.UtcNow.AddDays(90));
            var made = await call.Client.MakeKeyAsync(
                me.Name,
                new(call.Get(name), day, call.Get(roles) is { } some ? People.RolesOf(some) : me.Roles, call.Get(reads)),
                call.Ct
            );
            call.Show(
                made,
                ContractJson.Default.ScriptKeyMade,
                screen =>
                {
                    screen.Line($"'{Screen.Safe(made.Key.Name)}': {Told(made.Key)}. Shown this once:");
                    screen.Plain($"{made.Secret}\n");
                }
            );
        });
    }

    private static Argument<string?> Somebody() =>
        new("PERSON")
        {
            Description = "Whose; yours where it is not said.",
            HelpName = "PERSON",
            Arity = ArgumentArity.ZeroOrOne,
        };

    private static async Task<string> WhoseAsync(Call call, Argument<string?> name) =>
        call.Get(name) is { Length: > 0 } said ? said : (await call.Client.MeAsync(call.Ct)).Name;

    private static void Draw(Screen screen, ComingsIn comings)
    {
        screen.Table(
            ["id", "signed in with", "since", "last seen", "from"],
            comings.Sessions.Select(s =>
                new[]
                {
                    Short(s.Id),
                    Screen.Safe(s.This ? $"{s.Device} (this one)" : s.Device),
                    At(s.Since),
                    At(s.LastSeen),
                    Screen.Safe(s.Address),
                }
            )
        );
        if (comings.Keys.Count > 0)
        {
            screen.Line();
            screen.Table(
                ["id", "key", "may", "last used"],
                comings.Keys.Select(k => new[] { Short(k.Id), Screen.Safe(k.Name), Told(k), k.LastUsed is { } used ? At(used) : "never" })
            );
        }
        DrawChanges(screen, comings.Changes);
    }

    private static void DrawChanges(Screen screen, IReadOnlyList<SignInChange> changes)
    {
        if (changes.Count == 0)
            return;
        screen.Line();
        screen.Line("What was changed of it:");
        foreach (var change in changes)
            screen.Line($"  {At(change.At)}  {Screen.Safe(change.Says)}{(change.From is { } from ? $" From {Screen.Safe(from)}." : "")}");
    }

    private static string Told(ScriptKeyView key) =>
        $"{(key.ReadOnly ? "reads only" : "reads and writes")} as {string.Join(", ", key.Roles.Select(Words.Of))}, until {key.Until:yyyy-MM-dd}";

    // An id of RFC 9562, version 7, begins with its time; its end is what tells two of one minute apart.
    private static string Short(Guid id) => id.ToString("N")[^8..];

    private static string At(DateTimeOffset at) => at.UtcDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture) + "Z";
}
