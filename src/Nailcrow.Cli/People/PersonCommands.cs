using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.People;

internal static class PersonCommands
{
    public static Command Build() => new("person", "The people of the firm.") { List(), Add(), Mail() };

    private static Command List() =>
        new Command("list", "Everybody, with what they may do.").Does(async call =>
        {
            var people = await call.Client.PeopleAsync(call.Ct);
            call.Show(
                people,
                ContractJson.Default.PeopleList,
                screen =>
                    screen.Table(
                        ["name", "", "roles", "mail"],
                        people.People.Select(p =>
                            new[] { Screen.Safe(p.Name), Screen.Safe(p.FullName), People.Roles(p), Screen.Safe(p.Mail ?? "") }
                        )
                    )
            );
        });

    private static Command Add()
    {
        var name = Said.Text("NAME", "The name to sign in with.");
        var full = Said.Needed("--full-name", "The name people call them by.", "NAME");
        var roles = Said.Needed("--roles", $"Comma-separated, from: {Words.List<Role>()}.");
        var mail = Said.Optional("--mail", "Where reminders go, as name@place.example.", "ADDRESS");
        return new Command("add", "Let somebody in; their first password is asked for, or taken from NAILCROW_NEW_PASSWORD.")
        {
            name,
            full,
            roles,
            mail,
        }.Does(async call =>
        {
            var password =
                Environment.GetEnvironmentVariable("NAILCROW_NEW_PASSWORD")
                ?? call.Screen.Ask($"First password for {call.Get(name)} (10 characters or more): ");
            var person = await call.Client.AddPersonAsync(
                new PersonAsk(call.Get(name), call.Get(full)!, password, [.. Parse(call.Get(roles)!)], call.Get(mail)),
                call.Ct
            );
            call.Show(
                person,
                ContractJson.Default.PersonView,
                screen => screen.Line($"{Screen.Safe(person.FullName)} ({Screen.Safe(person.Name)}) may come in: {People.Roles(person)}.")
            );
        });
    }

    private static Command Mail()
    {
        var name = Said.Text("NAME", "Whose: one's own; an administrator, anybody's.");
        var address = new Argument<string?>("ADDRESS")
        {
            Description = "As name@place.example; none to send them nothing any more.",
            Arity = ArgumentArity.ZeroOrOne,
        };
        return new Command("mail", "Where reminders of what has to go back are sent to.") { name, address }.Does(async call =>
        {
            var person = await call.Client.PutPersonMailAsync(call.Get(name), call.Get(address), call.Ct);
            call.Show(
                person,
                ContractJson.Default.PersonView,
                screen =>
                    screen.Line(
                        person.Mail is { } mail
                            ? $"{Screen.Safe(person.Name)} is reminded at {Screen.Safe(mail)}."
                            : $"{Screen.Safe(person.Name)} is sent nothing."
                    )
            );
        });
    }

    private static IEnumerable<Role> Parse(string words) =>
        words
            .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(word => Said.Word<Role>(word, "role"));
}
