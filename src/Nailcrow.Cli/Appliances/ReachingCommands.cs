using System.CommandLine;
using Nailcrow.Cli.People;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Appliances;

/// <summary>How machines are come into, and whether they can be read.</summary>
internal static class ReachingCommands
{
    private const string Variable = "NAILCROW_MACHINE_SECRET";

    private static Argument<string> Asset() => Said.Text("ASSET", "Its asset number.");

    public static Command Try()
    {
        var asset = Asset();
        return new Command("try", "Whether it can be read: what it answers, step by step, and what is made of it.") { asset }.Does(
            async call =>
            {
                var trial = await call.Client.TryMachineAsync(call.Get(asset), call.Ct);
                call.Show(trial, ContractJson.Default.Trial, screen => ShowTrial(screen, trial));
                if (!trial.Ok)
                    throw new Refusal($"{trial.Asset} cannot be read.");
            }
        );
    }

    public static Command Access()
    {
        var asset = new Argument<string?>("ASSET")
        {
            Description = "Its asset number; left out, those whose certificate waits for a yes.",
            HelpName = "ASSET",
            DefaultValueFactory = _ => null,
        };
        var after = Said.Optional("--after", "The next page: only asset numbers above this.", "ASSET");
        return new Command("access", "Whom one signs in as, and which certificate it may show.") { asset, after }.Does(async call =>
        {
            if (call.Get(asset) is { } one)
                ShowAccess(call, await call.Client.AccessAsync(one, call.Ct));
            else
                ShowWaiting(call, await call.Client.WaitingMachinesAsync(call.Get(after), call.Ct));
        });
    }

    private static void ShowWaiting(Call call, WaitingMachines waiting) =>
        call.Show(
            waiting,
            ContractJson.Default.WaitingMachines,
            screen =>
            {
                foreach (var asset in waiting.Assets)
                    screen.Line($"{Screen.Safe(asset)}  shows a certificate that waits for a yes");
                if (waiting.Assets.Count == 0)
                    screen.Line("No machine shows a certificate that waits for a yes.");
                if (waiting.Next is { } next)
                    screen.Line($"[dim]more: --after {Screen.Safe(next)}[/]");
            }
        );

    public static Command SignIn()
    {
        var asset = Asset();
        var name = Said.Text("NAME", "Whom its management interface knows, with the right to read its storage.");
        var way = Said.OneOf<SignInWay>("--way", "How it lets one in; a session unless it has none.", "way");
        var file = Said.Optional("--secret-file", "A file in the folder for secrets on the service's machine, read at each use.", "FILE");
        return new Command(
            "sign-in",
            $"Whom to sign in as from now on. The secret is asked for, or taken from {Variable}; it is kept encrypted, and never shown again."
        )
        {
            asset,
            name,
            way,
            file,
        }.Does(async call =>
        {
            var secret = call.Get(file) is null ? Secret(call.Screen) : null;
            var given = new MachineSignInAsk(call.Get(name), call.Get(way) ?? SignInWay.Session, secret, call.Get(file));
            ShowAccess(call, await call.Client.GiveSignInAsync(call.Get(asset), given, call.Ct));
        });
    }

    public static Command SignInNoMore()
    {
        var asset = Asset();
        return new Command("sign-in-no-more", "Forget whom to sign in as; it is asked as anybody.") { asset }.Does(async call =>
        {
            await call.Client.TakeSignInAwayAsync(call.Get(asset), call.Ct);
            call.Screen.Line($"{Screen.Safe(call.Get(asset))} is asked as anybody.");
        });
    }

    public static Command Trust()
    {
        var asset = Asset();
        var print = new Argument<string?>("SHA256")
        {
            Description = "The fingerprint on the machine's own screen; left out, the one it showed is shown, and asked about.",
            DefaultValueFactory = _ => null,
        };
        return new Command("trust", "Say yes to the certificate it shows, once it was compared with the machine's own screen.")
        {
            asset,
            print,
        }.Does(async call =>
        {
            var looked = call.Get(print) ?? await AskedAsync(call, call.Get(asset));
            ShowAccess(call, await call.Client.TrustAsync(call.Get(asset), looked, call.Ct));
        });
    }

    private static async Task<string> AskedAsync(Call call, string asset)
    {
        var access = await call.Client.AccessAsync(asset, call.Ct);
        if (access.Offered is not { } offered)
            throw new UsageProblem(
                $"{access.Asset} has shown no certificate that waits for a yes; 'nailcrow appliance try {access.Asset}' has it show one."
            );
        foreach (var line in OfOffered(offered))
            call.Screen.Line(line);
        return call.Screen.AskAnew("Is that what its own screen says? yes or no: ").Trim() is "yes" or "y"
            ? offered.Certificate.Sha256
            : throw new UsageProblem("Nothing was changed; nothing is sent to it.");
    }

    private static string Secret(Screen screen) =>
        Environment.GetEnvironmentVariable(Variable) is { Length: > 0 } said ? said : Typed.Hidden(screen, "Its secret: ");

    private static void ShowTrial(Screen screen, Trial trial)
    {
        foreach (var step in trial.Steps)
            screen.Line(
                $"{(step.Ok ? "[green]+[/] yes " : "[red]x[/] no  ")} {Screen.Safe(step.What)}: {Screen.Safe(step.Came)} "
                    + $"[dim]{step.Milliseconds} ms[/]"
            );
        if (trial.Ok)
            screen.Line($"[bold]{Screen.Safe(trial.Asset)} can be read.[/]");
    }

    private static void ShowAccess(Call call, MachineAccessView access) =>
        call.Show(
            access,
            ContractJson.Default.MachineAccessView,
            screen =>
            {
                screen.Line($"[bold]{Screen.Safe(access.Asset)}[/]  {Screen.Safe(access.Address ?? "by hand only")}");
                screen.Line(
                    access.SignIn is { } signIn
                        ? $"  sign-in      {Screen.Safe(signIn.Name)}, by {Ways(signIn.Way)}, secret {Screen.Safe(Kept(signIn))}; given by "
                            + $"{Screen.Safe(signIn.By)} on {signIn.At.UtcDateTime:yyyy-MM-dd}"
                        : "  sign-in      none; it is asked as anybody"
                );
                if (access.Trusted is { } trusted)
                    foreach (var line in OfTrusted(trusted))
                        screen.Line(line);
                if (access.Offered is { } offered)
                    foreach (var line in OfOffered(offered))
                        screen.Line(line);
            }
        );

    private static string Ways(SignInWay way) => way == SignInWay.Session ? "a session" : "name and secret with each call";

    private static string Kept(MachineSignInView signIn) => signIn.SecretFile is { } file ? $"in the file {file}" : "kept encrypted";

    private static IEnumerable<string> OfTrusted(TrustedCertificateView trusted) =>
        [
            $"  certificate  {Screen.Safe(trusted.Certificate.Subject)}, until {trusted.Certificate.Until.UtcDateTime:yyyy-MM-dd}; yes said by "
                + $"{Screen.Safe(trusted.By)} on {trusted.At.UtcDateTime:yyyy-MM-dd}",
            $"               {trusted.Pairs}",
        ];

    private static IEnumerable<string> OfOffered(OfferedCertificateView offered) =>
        [
            $"  [bold]waits for a yes[/]  {Screen.Safe(offered.Certificate.Subject)}, until {offered.Certificate.Until.UtcDateTime:yyyy-MM-dd}; shown "
                + $"on {offered.At.UtcDateTime:yyyy-MM-dd HH:mm}Z",
            $"               {offered.Pairs}",
        ];
}
