using System.CommandLine;
using System.Globalization;
using Nailcrow.Cli.Shell;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Terms;

namespace Nailcrow.Cli.Appliances;

/// <summary>What can be said of a customer; the same words where one is added, changed, or comes with a new machine.</summary>
internal sealed class CustomerWords
{
    private readonly Option<string[]> _people = new("--ask")
    {
        Description = "Somebody to ask there: 'NAME | ABOUT WHAT | HOW REACHED'. Whoever is known by that name is replaced.",
        HelpName = "PERSON",
    };
    private readonly Option<int?> _respond = new("--respond-hours") { Description = "Promised: an engineer there within so many hours." };
    private readonly Option<int?> _restore = new("--restore-hours") { Description = "Promised: redundancy back within so many hours." };
    private readonly Option<DataAgreement?> _data = Said.OneOf<DataAgreement>(
        "--data",
        "What is agreed on drives with their data.",
        "agreement on data"
    );
    private readonly Option<string?> _dataNote = Said.Optional("--data-note", "Where that agreement stands.", "TEXT");
    private readonly Option<string?> _spares = Said.Optional("--spares", "Which spares they keep, where, and whose they are.", "TEXT");

    private readonly Option<string?> _pictures = Said.Optional(
        "--pictures-months",
        "So many months after a ticket ends its pictures go; 'none': they stay as long as the record.",
        "MONTHS"
    );

    public Command On(Command command)
    {
        foreach (var option in new Option[] { _people, _respond, _restore, _data, _dataNote, _spares, _pictures })
            command.Options.Add(option);
        return command;
    }

    public bool NamesPeople(Call call) => call.Get(_people) is { Length: > 0 };

    public bool SaysAnything(Call call) => Read(call, new("")) != new Customer("") || NamesPeople(call);

    /// <summary>What was said, over what was known.</summary>
    public Customer Read(Call call, Customer known)
    {
        var said = (call.Get(_people) ?? []).Select(Person).ToList();
        var stay = (known.People ?? []).Where(p => said.All(s => !CustomerCommands.Same(s.Name, p.Name)));
        return known with
        {
            People = said.Count == 0 ? known.People : [.. stay, .. said],
            RespondHours = call.Get(_respond) ?? known.RespondHours,
            RestoreHours = call.Get(_restore) ?? known.RestoreHours,
            Data = call.Get(_data) ?? known.Data,
            DataNote = Note(call.Get(_dataNote), known.DataNote),
            Spares = Note(call.Get(_spares), known.Spares),
            PicturesKeptMonths = Months(call.Get(_pictures), known.PicturesKeptMonths),
        };
    }

    /// <summary>An empty text takes back what was noted.</summary>
    private static string? Note(string? said, string? known) =>
        said is null ? known
        : said.Length == 0 ? null
        : said;

    private static int? Months(string? said, int? known) =>
        said is null ? known
        : said == "none" ? null
        : int.TryParse(said, NumberStyles.None, CultureInfo.InvariantCulture, out var months) ? months
        : throw new UsageProblem($"--pictures-months is '{said}'; write a number of months, or none.");

    private static PersonToAsk Person(string text) =>
        PersonToAsk.Parse(text).Is(out var person, out var reason) ? person : throw new UsageProblem(reason);
}
