using System.CommandLine;
using System.Globalization;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.People;

namespace Nailcrow.Cli.People;

/// <summary>What somebody shows beside a password: one-time codes here, passkeys in the console, recovery codes on paper.</summary>
internal static class SecondFactorCommands
{
    public static Command Build() =>
        new("second-factor", "What you show beside your password when you sign in.")
        {
            Show(),
            Codes(),
            Recovery(),
            EndCodes(),
            EndPasskey(),
        };

    public static Command Lost()
    {
        var name = PersonCommands.Name();
        return new Command(
            "second-factor-lost",
            "Somebody has lost what they show beside their password: it is taken away, and wherever they were signed in they are not any more."
        )
        {
            name,
        }.Does(async call =>
        {
            var person = await call.Client.TakeAwaySecondFactorAsync(call.Get(name), call.Ct);
            call.ShowChanged(
                person,
                $"{Screen.Safe(person.Name)} has no second factor any more, and signs in with the password alone. Be sure that it was them who asked."
            );
        });
    }

    private static Command Show() =>
        new Command("show", "What you have set up.").Does(async call =>
        {
            var now = await call.Client.SecondFactorAsync(call.Ct);
            call.Show(now, ContractJson.Default.SecondFactorView, screen => Draw(screen, now));
        });

    private static Command Codes()
    {
        var shown = Said.Optional("--shown", "What your device shows of a key that you were given before.", "DIGITS");
        return new Command(
            "codes",
            "Set up one-time codes: your device takes over a key, from the picture or typed in, and shows six digits, which are asked for here. "
                + "A device that did so before shows nothing that counts any more. With --json the key comes first, and --shown says the digits."
        )
        {
            shown,
        }.Does(async call =>
        {
            if (call.Get(shown) is not { } digits)
            {
                var offered = await call.Client.OfferCodesAsync(Password(call), call.Ct);
                call.Show(offered, ContractJson.Default.CodesOffered, screen => Draw(screen, offered));
                if (call.Json)
                    return; // a program reads one answer of one command
                digits = Typed.Hidden(call.Screen, "The six digits it shows: ");
            }
            Tell(call, await call.Client.TakeCodesAsync(digits, call.Ct), "From now on a code is asked for when you sign in.");
        });
    }

    private static void Draw(Screen screen, CodesOffered offered)
    {
        foreach (var line in Halves(offered.Picture))
            screen.Plain(line + "\n");
        screen.Line($"The key, where your device reads no picture: {Screen.Safe(Grouped(offered.Key))}");
    }

    private static Command Recovery() =>
        new Command(
            "recovery",
            "Ten other recovery codes, for the day on which the device is lost; those before are good for nothing."
        ).Does(async call =>
            Tell(call, await call.Client.MakeRecoveryCodesAsync(Password(call), call.Ct), "Those before are good for nothing now.")
        );

    private static Command EndCodes() =>
        new Command("end-codes", "No one-time codes any more.").Does(async call =>
        {
            var now = await call.Client.EndCodesAsync(Password(call), call.Ct);
            call.Show(now, ContractJson.Default.SecondFactorView, screen => Draw(screen, now));
        });

    private static Command EndPasskey()
    {
        var id = Said.Text("ID", "Of a passkey, as 'second-factor show' tells it; the beginning is enough.");
        return new Command("end-passkey", "A passkey that you have no more opens nothing any more.") { id }.Does(async call =>
        {
            var meant = (await call.Client.SecondFactorAsync(call.Ct))
                .Passkeys.Where(k => k.Id.StartsWith(call.Get(id), StringComparison.Ordinal))
                .ToList();
            if (meant.Count != 1)
                throw new Refusal(
                    meant.Count == 0
                        ? $"You have no passkey '{call.Get(id)}'; 'nailcrow second-factor show' lists them."
                        : $"'{call.Get(id)}' begins more than one; write more of it."
                );
            var now = await call.Client.EndPasskeyAsync(meant[0].Id, Password(call), call.Ct);
            call.Show(now, ContractJson.Default.SecondFactorView, screen => Draw(screen, now));
        });
    }

    internal static string Password(Call call) =>
        Environment.GetEnvironmentVariable("NAILCROW_PASSWORD") ?? Typed.Hidden(call.Screen, "Your password, once more: ");

    private static void Tell(Call call, SecondFactorSet set, string done) =>
        call.Show(
            set,
            ContractJson.Default.SecondFactorSet,
            screen =>
            {
                screen.Line(done);
                if (set.RecoveryCodes is not { } codes)
                    return;
                screen.Line("Recovery codes, shown this once. Keep them on paper; each is good once, in place of what the device shows:");
                foreach (var pair in codes.Chunk(2))
                    screen.Plain($"    {string.Join("    ", pair)}\n");
            }
        );

    private static void Draw(Screen screen, SecondFactorView now)
    {
        screen.Line(
            now.CodesSince is { } since
                ? $"One-time codes since {Day(since)}."
                : "No one-time codes; 'nailcrow second-factor codes' sets them up."
        );
        foreach (var passkey in now.Passkeys)
            screen.Line(
                $"The passkey '{Screen.Safe(passkey.Name)}' since {Day(passkey.Since)}, id {Screen.Safe(passkey.Id[..Math.Min(12, passkey.Id.Length)])}."
            );
        if (now.CodesSince is not null || now.Passkeys.Count > 0)
            screen.Line(
                $"Recovery codes left: {now.RecoveryCodes}{(now.RecoveryCodes < 3 ? "; 'nailcrow second-factor recovery' makes others" : "")}."
            );
        else if (now.Needed)
            screen.Line("Your roles take one.");
    }

    /// <summary>Two rows of the picture to a line: a terminal's letters are twice as high as wide. Light is drawn, since most terminals are dark.</summary>
    private static IEnumerable<string> Halves(IReadOnlyList<string> rows) =>
        rows.Chunk(2)
            .Select(two =>
                string.Concat(
                    two[0]
                        .Select(
                            (dark, at) =>
                                (dark == '0', two.Length < 2 || two[1][at] == '0') switch
                                {
                                    (true, true) => '█',
                                    (true, false) => '▀',
                                    (false, true) => '▄',
                                    _ => ' ',
                                }
                        )
                )
            );

    private static string Grouped(string key) => string.Join(' ', key.Chunk(4).Select(four => new string(four)));

    private static string Day(DateTimeOffset at) => at.UtcDateTime.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
