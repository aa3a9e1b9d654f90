using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Appliances;

internal static class ApplianceCommands
{
    public static Command Build() =>
        new("appliance", "The machines that are looked after.")
        {
            List(),
            Show(),
            Map(),
            AddMachineCommand.Build(),
            PutRight(),
            ReachingCommands.Try(),
            ReachingCommands.Access(),
            ReachingCommands.SignIn(),
            ReachingCommands.SignInNoMore(),
            ReachingCommands.Trust(),
        };

    private static Command List()
    {
        var after = Said.Optional("--after", "The next page: only asset numbers above this.", "ASSET");
        var find = Said.Optional("--find", "Any part of an asset number, a chassis' serial, a model, a site or a place in it.", "TEXT");
        return new Command("list", "All of them, by asset number.") { find, after }.Does(async call =>
        {
            var page = await call.Client.AppliancesAsync(call.Get(after), call.Ct, call.Get(find));
            call.Show(
                page,
                ContractJson.Default.AppliancePage,
                screen =>
                {
                    screen.Table(
                        ["asset", "model", "serial", "site", "location", "reached"],
                        page.Appliances.Select(a =>
                            new[]
                            {
                                $"[bold]{Screen.Safe(a.Appliance.Asset)}[/]",
                                Screen.Safe($"{a.Model.Maker} {a.Model.Name}"),
                                Screen.Safe(a.Appliance.Serial),
                                Screen.Safe(a.Site.Name),
                                Screen.Safe(a.Appliance.Location),
                                Screen.Safe(a.Appliance.Address ?? "by hand only"),
                            }
                        )
                    );
                    if (page.Next is { } next)
                        screen.Line($"[dim]more: --after {Screen.Safe(next)}[/]");
                }
            );
        });
    }

    private static Command PutRight()
    {
        var asset = Said.Text("ASSET", "Its asset number.");
        var serial = Said.Optional("--serial", "Its own serial, as the sticker of the chassis says.");
        var location = Said.Optional("--location", "Room, rack and unit.");
        var site = Said.Optional("--site", "The site it stands at now.");
        var address = Said.Optional(
            "--address",
            "Where its management interface answers, as https://10.0.0.7; 'none' where nobody reaches it.",
            "URL"
        );
        return new Command("correct", "Put right what is known of it: its own serial, its place, its site, its management address.")
        {
            asset,
            serial,
            location,
            site,
            address,
        }.Does(async call =>
        {
            if ((call.Get(serial) ?? call.Get(location) ?? call.Get(site) ?? call.Get(address)) is null)
                throw new UsageProblem("Say what is so: --serial, --location, --site or --address.");
            var known = await call.Client.ApplianceAsync(call.Get(asset), call.Ct);
            var right = known.Appliance with
            {
                Serial = call.Get(serial) ?? known.Appliance.Serial,
                Location = call.Get(location) ?? known.Appliance.Location,
                Site = call.Get(site) ?? known.Appliance.Site,
                Address = call.Get(address) is { } at ? (at == "none" ? null : at) : known.Appliance.Address,
            };
            var now = await call.Client.ReplaceMachineAsync(right, known.Version, call.Ct);
            call.Show(
                now,
                ContractJson.Default.ApplianceView,
                screen =>
                    screen.Line(
                        Screen.Safe(
                            $"{now.Appliance.Asset}: {now.Appliance.Serial}, {now.Site.Name}, {now.Appliance.Location}, "
                                + $"{now.Appliance.Address ?? "by hand only"}."
                        )
                    )
            );
        });
    }

    private static Command Map()
    {
        var asset = Said.Text("ASSET", "Its asset number.");
        return new Command("map", "Which bay is which: label, place, software name, and how that was confirmed.") { asset }.Does(
            async call =>
            {
                var map = await call.Client.BayMapAsync(call.Get(asset), call.Ct);
                call.Show(
                    map,
                    ContractJson.Default.BayMapView,
                    screen =>
                    {
                        if (map.Warning is { } warning)
                            screen.Line($"[bold]![/] {Screen.Safe(warning)}");
                        screen.Table(
                            ["bay", "enclosure", "row", "column", "software name", "confirmed"],
                            map.Bays.Select(b =>
                                new[]
                                {
                                    $"[bold]{Screen.Safe(b.Bay)}[/]",
                                    Screen.Safe(b.Enclosure ?? "main"),
                                    $"{b.Row}",
                                    $"{b.Column}",
                                    Screen.Safe(b.Name ?? "?"),
                                    Screen.Safe(
                                        b.Confirmed is { } how ? $"by a {how}, {Core.Tickets.TicketNumber.Text(b.Ticket ?? 0)}" : "not yet"
                                    ),
                                }
                            )
                        );
                    }
                );
            }
        );
    }

    private static Command Show()
    {
        var asset = Said.Text("ASSET", "Its asset number.");
        return new Command("show", "One of them: what one should know before opening it.") { asset }.Does(async call =>
        {
            var view = await call.Client.ApplianceAsync(call.Get(asset), call.Ct);
            call.Show(
                view,
                ContractJson.Default.ApplianceView,
                screen =>
                {
                    var (appliance, site, model) = (view.Appliance, view.Site, view.Model);
                    screen.Line(
                        $"[bold]{Screen.Safe(appliance.Asset)}[/]  {Screen.Safe(model.Maker)} {Screen.Safe(model.Name)}, serial {Screen.Safe(appliance.Serial)}"
                    );
                    screen.Line(
                        $"{Screen.Safe(site.Customer)}, {Screen.Safe(site.Name)}, {Screen.Safe(site.Address)}  [dim]{Screen.Safe(site.Zone)}[/]"
                    );
                    screen.Line($"{Screen.Safe(appliance.Location)}. {Screen.Safe(site.Access)}");
                    foreach (var array in appliance.Arrays ?? [])
                        screen.Line(
                            $"  array      {Screen.Safe(array.Name)}: {Words.Of(array.Level)} of "
                                + $"{array.Members}{(array.MemberBytes is { } bytes ? $", {Size.Both(bytes)} of each" : "")}"
                        );
                    screen.Line(
                        $"  swap       {Words.Of(model.Swap)}; {model.WaitAfterPullSeconds} s between pull and insert; the "
                            + $"rebuild starts {Words.Of(model.RebuildStart)}"
                    );
                    foreach (var lamp in model.Lamps)
                        screen.Line($"  lamp       {Screen.Safe(lamp.Pattern)}: {Screen.Safe(lamp.Meaning)}");
                    foreach (var way in model.WaysIn)
                        screen.Line($"  way in     {Screen.Safe(way)}");
                    foreach (var quirk in model.Quirks)
                        screen.Line($"  quirk      {Screen.Safe(quirk)}");
                }
            );
        });
    }
}
