using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Appliances;

/// <summary>Who owns the machines: whom to ask there, what was promised, and what was agreed on data and spares.</summary>
internal static class CustomerCommands
{
    public static Command Build() =>
        new("customer", "Who owns the machines: whom to ask there, and what was agreed.") { List(), Show(), Add(), Change() };

    private static Command List()
    {
        var after = Said.Optional("--after", "The next page: only names above this.", "NAME");
        var find = Said.Optional("--find", "Any part of a name.", "TEXT");
        return new Command("list", "All of them, by name.") { find, after }.Does(async call =>
        {
            var page = await call.Client.CustomersAsync(call.Get(after), call.Ct, call.Get(find));
            call.Show(
                page,
                ContractJson.Default.CustomerPage,
                screen =>
                {
                    screen.Table(
                        ["customer", "people", "promise", "data"],
                        page.Customers.Select(
                            (c, nth) =>
                                new[]
                                {
                                    $"[bold]{Screen.Safe(c.Name)}[/]",
                                    Screen.Safe(string.Join(", ", (c.People ?? []).Select(p => p.Name))),
                                    Screen.Safe(page.Promises?.ElementAtOrDefault(nth)),
                                    Words.Of(c.Data).Replace('-', ' '),
                                }
                        )
                    );
                    if (page.Next is { } next)
                        screen.Line($"[dim]more: --after {Screen.Safe(next)}[/]");
                }
            );
        });
    }

    private static Command Show()
    {
        var name = Said.Text("NAME", "What they are called.");
        return new Command("show", "One of them: whom to ask, what was agreed, and where their machines stand.") { name }.Does(async call =>
            Tell(call, await call.Client.CustomerAsync(call.Get(name), call.Ct))
        );
    }

    private static Command Add()
    {
        var (name, words) = (Said.Text("NAME", "What they are called."), new CustomerWords());
        return words
            .On(new Command("add", "Add a customer nobody has heard of.") { name })
            .Does(async call => Tell(call, await call.Client.PutCustomerAsync(words.Read(call, new(call.Get(name))), null, call.Ct)));
    }

    private static Command Change()
    {
        var (name, words) = (Said.Text("NAME", "What they are called."), new CustomerWords());
        var without = new Option<string[]>("--without")
        {
            Description = "Somebody who is not asked any more.",
            HelpName = "NAME",
            AllowMultipleArgumentsPerToken = true,
        };
        return words
            .On(new Command("change", "Change what is known of one; what is not named stays.") { name, without })
            .Does(async call =>
            {
                var known = await call.Client.CustomerAsync(call.Get(name), call.Ct);
                var gone = call.Get(without) ?? [];
                if (gone.FirstOrDefault(g => !(known.Customer.People ?? []).Any(p => Same(p.Name, g))) is { } nobody)
                    throw new UsageProblem($"'{nobody}' is nobody to ask at {known.Customer.Name}; 'nailcrow customer show' lists them.");
                var changed = words.Read(
                    call,
                    known.Customer with
                    {
                        People = [.. (known.Customer.People ?? []).Where(p => !gone.Any(g => Same(p.Name, g)))],
                    }
                );
                if (changed with { People = null } == known.Customer with { People = null } && gone.Length == 0 && !words.NamesPeople(call))
                    throw new UsageProblem("Say what is so; 'nailcrow customer change --help' lists what can be.");
                Tell(call, await call.Client.PutCustomerAsync(changed, known.Version, call.Ct));
            });
    }

    internal static bool Same(string one, string other) => string.Equals(one, other, StringComparison.OrdinalIgnoreCase);

    private static void Tell(Call call, CustomerView view) =>
        call.Show(
            view,
            ContractJson.Default.CustomerView,
            screen =>
            {
                screen.Line($"[bold]{Screen.Safe(view.Customer.Name)}[/]  [dim]{Screen.Safe(view.Promise)}[/]");
                foreach (var line in view.Customer.Lines())
                    screen.Line($"  {line.About.ToLowerInvariant(), -10} {Screen.Safe(line.Says)}");
                screen.Line($"  pictures   {Screen.Safe(view.Pictures)}");
                foreach (var site in view.Sites)
                    screen.Line($"  site       {Screen.Safe(site)}");
                screen.Line($"  machines   {view.Machines}");
            }
        );
}
