using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.People;

/// <summary>The people of the firm: who may come in, and as what.</summary>
internal static class PersonCommands
{
    public static Command Build() =>
        new("person", "The people of the firm.")
        {
            List(),
            Add(),
            Rename(),
            PutRoles(),
            Mail(),
            GivePassword(),
            Disable(),
            Enable(),
            LeavingCommands.Holds(),
            LeavingCommands.HandOver(),
            LeavingCommands.Leave(),
            ComingInCommands.SignIns(),
            ComingInCommands.End(),
            SecondFactorCommands.Lost(),
            ElsewhereCommands.EndOther(),
        };

    internal static Argument<string> Name(string says = "The name they sign in with.") =>
        new("PERSON") { Description = says, HelpName = "PERSON" };

    internal static void ShowChanged(this Call call, PersonView person, string says) =>
        call.Show(person, ContractJson.Default.PersonView, screen => screen.Line(says));

    private static Command List() =>
        new Command("list", "Everybody, with what they may do.").Does(async call =>
        {
            var people = await call.Client.PeopleAsync(call.Ct);
            call.Show(
                people,
                ContractJson.Default.PeopleList,
                screen =>
                    screen.Table(
                        ["name", "", "roles", "mail", "may come in"],
                        people.People.Select(p =>
                            new[]
                            {
                                Screen.Safe(p.Name),
                                Screen.Safe(p.FullName),
                                People.Roles(p),
                                Screen.Safe(p.Mail ?? ""),
                                Screen.Safe(MayComeIn(p)),
                            }
                        )
                    )
            );
        });

    private static string MayComeIn(PersonView person) =>
        person.DisabledAt is { } at ? $"not since {at.UtcDateTime:yyyy-MM-dd}{(person.DisabledBecause is { } why ? $": {why}" : "")}"
        : person.MustChange
            ? $"yes, and chooses a password first{(person.FirstUntil is { } until ? $", until {until.UtcDateTime:yyyy-MM-dd}" : "")}"
        : person.Elsewhere is { } provider ? $"yes, by {provider}{(person.HasPassword ? "" : " alone")}"
        : person.HasSecondFactor == true ? "yes, with a second factor"
        : "yes";

    private static Command Add()
    {
        var name = Said.Text("NAME", "The name to sign in with: 2 to 40 of a to z, 0 to 9, dot and hyphen. It is given once.");
        var full = Said.Needed("--full-name", "The name people call them by.", "NAME");
        var roles = Said.Needed("--roles", $"Comma-separated, from: {Words.List<Role>()}.");
        var mail = Said.Optional("--mail", "Where reminders go, as name@place.example.", "ADDRESS");
        return new Command(
            "add",
            "Let somebody in. Their first password is made and shown once, or taken from NAILCROW_FIRST_PASSWORD; they have to change it."
        )
        {
            name,
            full,
            roles,
            mail,
        }.Does(async call =>
        {
            var letIn = await call.Client.AddPersonAsync(
                new PersonAsk(call.Get(name), call.Get(full)!, First, People.RolesOf(call.Get(roles)!), call.Get(mail)),
                call.Ct
            );
            ShowLetIn(
                call,
                letIn,
                $"{Screen.Safe(letIn.Person.FullName)} ({Screen.Safe(letIn.Person.Name)}) may come in: {People.Roles(letIn.Person)}."
            );
        });
    }

    private static Command Rename()
    {
        var (name, full) = (Name(), Said.Text("NAME", "The name people call them by from now on."));
        return new Command("rename", "Somebody is called otherwise now; the name they sign in with stays.") { name, full }.Does(
            async call =>
            {
                var person = await call.Client.RenamePersonAsync(call.Get(name), call.Get(full), call.Ct);
                call.ShowChanged(person, $"{Screen.Safe(person.Name)} is {Screen.Safe(person.FullName)}.");
            }
        );
    }

    private static Command PutRoles()
    {
        var (name, roles) = (Name(), Said.Text("ROLES", $"All they have from now on, comma-separated, from: {Words.List<Role>()}."));
        return new Command("roles", "What somebody may do from now on; what is taken away counts within seconds.") { name, roles }.Does(
            async call =>
            {
                var person = await call.Client.PutRolesAsync(call.Get(name), People.RolesOf(call.Get(roles)), call.Ct);
                call.ShowChanged(person, $"{Screen.Safe(person.Name)}: {People.Roles(person)}.");
            }
        );
    }

    private static Command Mail()
    {
        var name = Name("Whose: one's own; an administrator, anybody's.");
        var address = new Argument<string?>("ADDRESS")
        {
            Description = "As name@place.example; none to send them nothing any more.",
            Arity = ArgumentArity.ZeroOrOne,
        };
        return new Command("mail", "Where reminders of what has to go back are sent to.") { name, address }.Does(async call =>
        {
            var person = await call.Client.PutPersonMailAsync(call.Get(name), call.Get(address), call.Ct);
            call.ShowChanged(
                person,
                person.Mail is { } mail
                    ? $"{Screen.Safe(person.Name)} is reminded at {Screen.Safe(mail)}."
                    : $"{Screen.Safe(person.Name)} is sent nothing."
            );
        });
    }

    private static Command GivePassword()
    {
        var name = Name();
        return new Command(
            "password",
            "Give somebody a password that they have to change: made and shown once, or taken from NAILCROW_FIRST_PASSWORD. They are signed out everywhere."
        )
        {
            name,
        }.Does(async call =>
        {
            var letIn = await call.Client.GivePasswordAsync(call.Get(name), First, call.Ct);
            ShowLetIn(call, letIn, $"{Screen.Safe(letIn.Person.Name)} has another password, and has to change it.");
        });
    }

    private static Command Disable()
    {
        var name = Name();
        var because = Said.Needed("--because", "Why; it is kept with it.", "TEXT");
        return new Command("disable", "Somebody may not come in any more: out within seconds, wherever they are signed in.")
        {
            name,
            because,
        }.Does(async call =>
        {
            var person = await call.Client.DisablePersonAsync(call.Get(name), call.Said(because), call.Ct);
            var held = await call.Client.HoldsAsync(person.Name, call.Ct);
            call.Show(
                person,
                ContractJson.Default.PersonView,
                screen =>
                {
                    screen.Line($"{Screen.Safe(person.Name)} may not come in any more.");
                    LeavingCommands.Draw(screen, person.Name, held);
                }
            );
        });
    }

    private static Command Enable()
    {
        var name = Name();
        return new Command("enable", "Somebody may come in again, with the password they had.") { name }.Does(async call =>
        {
            var person = await call.Client.EnablePersonAsync(call.Get(name), call.Ct);
            call.ShowChanged(person, $"{Screen.Safe(person.Name)} may come in again: {People.Roles(person)}.");
        });
    }

    private static string? First => Environment.GetEnvironmentVariable("NAILCROW_FIRST_PASSWORD") is { Length: > 0 } said ? said : null;

    private static void ShowLetIn(Call call, PersonLetIn letIn, string says) =>
        call.Show(
            letIn,
            ContractJson.Default.PersonLetIn,
            screen =>
            {
                screen.Line(says);
                if (letIn.FirstPassword is { } password)
                    screen.Line($"Their first password, shown this once: [bold]{Screen.Safe(password)}[/]");
            }
        );
}
