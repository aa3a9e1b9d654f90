using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Returns;

/// <summary>Carriers and makers whom the service can ask.</summary>
internal static class PartnerCommands
{
    public static Command Build() => new("partner", "Carriers and makers whom the service can ask.") { List(), Set(), Remove() };

    private static Command List() =>
        new Command("list", "All of them, and where they answer.").Does(async call =>
        {
            var known = await call.Client.PartnersAsync(call.Ct);
            call.Show(
                known,
                ContractJson.Default.PartnerList,
                screen =>
                {
                    if (known.Partners.Count == 0)
                        screen.Line("None yet; an administrator adds one with 'nailcrow partner set NAME --kind KIND --address URL'.");
                    else
                        screen.Table(
                            ["partner", "kind", "answers at"],
                            known.Partners.Select(p =>
                                new[] { $"[bold]{Screen.Safe(p.Name)}[/]", Words.Of(p.Kind), Screen.Safe(p.Address) }
                            )
                        );
                }
            );
        });

    private static Command Set()
    {
        var name = Said.Text("NAME", "What they are called, as it stands on tickets.");
        var kind = Said.OneOf<PartnerKind>("--kind", "What they are.", "kind");
        kind.Required = true;
        var address = Said.Needed(
            "--address",
            "Where they answer, as https://carrier.example/api; a mail server as smtp://HOST:PORT/FROM or smtps://USER@HOST/FROM.",
            "URL"
        );
        var secret = Said.Optional(
            "--secret",
            "What both sign with, or a mail server's password; left out, the one there is stays, or one is made and shown once.",
            "TEXT"
        );
        var renew = new Option<bool>("--new-secret") { Description = "Make a new one in place of the one there is, and show it once." };
        return new Command("set", "Add a carrier, a maker or a mail server, or change where it answers; an administrator does.")
        {
            name,
            kind,
            address,
            secret,
            renew,
        }.Does(async call =>
        {
            var put = await call.Client.PutPartnerAsync(
                call.Get(name),
                new(
                    call.Get(kind) ?? throw new UsageProblem("Say what they are with --kind."),
                    call.Get(address)!,
                    call.Get(secret),
                    call.Get(renew) ? true : null
                ),
                call.Ct
            );
            call.Show(
                put,
                ContractJson.Default.PartnerPut,
                screen =>
                {
                    screen.Line($"{Screen.Safe(put.Partner.Name)} is asked at {Screen.Safe(put.Partner.Address)}.");
                    if (put.Secret is { } made)
                        screen.Line($"Both sign with  {Screen.Safe(made)}  (shown this once)");
                    if (put.Partner.EventsGoTo is { } url)
                        screen.Line($"It may tell what becomes of parcels at {Screen.Safe(url)}");
                }
            );
        });
    }

    private static Command Remove()
    {
        var name = Said.Text("NAME", "Who is not asked any more.");
        return new Command("remove", "Ask somebody no more; what was said stays on its tickets.") { name }.Does(async call =>
        {
            await call.Client.RemovePartnerAsync(call.Get(name), call.Ct);
            call.Screen.Line($"{Screen.Safe(call.Get(name))} is not asked any more.");
        });
    }
}
