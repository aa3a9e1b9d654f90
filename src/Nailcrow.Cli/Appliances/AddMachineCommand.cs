using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;

namespace Nailcrow.Cli.Appliances;

/// <summary>A machine nobody has heard of, added on the spot from what its plate says, with its site where that is new too.</summary>
internal static class AddMachineCommand
{
    public static Command Build()
    {
        var asset = Said.Text("ASSET", "The asset number it gets with the firm.");
        var serial = Said.Needed("--serial", "Its own serial, from the sticker of the chassis.");
        var model = Said.Needed("--model", "Its model's id; 'nailcrow appliance add ASSET --model ?' lists them.");
        var location = Said.Needed("--location", "Room, rack and unit, as one would say it.");
        var site = Said.Needed("--site", "The site it stands at, known or new.");
        var customer = Said.Optional("--customer", "Whose site it is; with it the site is new.");
        var address = Said.Optional("--address", "Where a new site is.");
        var zone = Said.Optional("--zone", "A new site's time zone, such as Europe/Oslo; left out, this machine's.");
        var access = Said.Optional("--access", "What one has to know to get in there.");
        var theirs = new CustomerWords();
        var command = new Command("add", "Add a machine nobody has heard of, from what its plate says.")
        {
            asset,
            serial,
            model,
            location,
            site,
            customer,
            address,
            zone,
            access,
        };
        return theirs
            .On(command)
            .Does(async call =>
            {
                var models = await call.Client.ModelsAsync(call.Ct);
                if (models.All(m => m.Id != call.Said(model)))
                    throw new UsageProblem(
                        $"There is no model '{call.Said(model)}'; known: {string.Join(", ", models.Select(m => $"{m.Id} ({m.Maker} {m.Name})"))}."
                    );
                var place = call.Get(customer) is { } whose
                    ? new Site(call.Said(site), whose, call.Get(address) ?? "", call.Get(zone) ?? TimeZoneInfo.Local.Id, call.Get(access))
                    : null;
                if (theirs.SaysAnything(call) && place is null)
                    throw new UsageProblem(
                        "What is said of a customer comes with --customer and a new site; 'nailcrow customer change' is for one that is known."
                    );
                var owner = place is not null && theirs.SaysAnything(call) ? theirs.Read(call, new(place.Customer)) : null;
                var machine = new Appliance(call.Get(asset), call.Said(serial), call.Said(model), call.Said(site), call.Said(location));
                var added = await call.Client.AddMachineAsync(new(machine, place, owner), call.Ct);
                call.Show(
                    added,
                    ContractJson.Default.MachineAdded,
                    screen =>
                    {
                        var now = added.Machine;
                        screen.Line(
                            Screen.Safe($"{now.Appliance.Asset} is known now: {now.Model.Maker} {now.Model.Name} at {now.Site.Name}.")
                        );
                        if (added.Waiting > 0)
                            screen.Line(
                                $"{added.Waiting} in the intake list is about it; 'nailcrow intake list' shows it, 'intake settle' makes it a ticket."
                            );
                    }
                );
            });
    }
}
