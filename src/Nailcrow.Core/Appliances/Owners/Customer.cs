using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Owners;

/// <summary>What was agreed about drives that have a customer's data on them.</summary>
[JsonConverter(typeof(KebabEnum<DataAgreement>))]
public enum DataAgreement
{
    /// <summary>Nothing was agreed: they are asked for each drive.</summary>
    AskEachTime,
    MayLeave,

    /// <summary>A drive leaves once it was wiped.</summary>
    WipedFirst,
    StaysWithThem,
    DestroyedThere,
}

/// <summary>Somebody at a customer's.</summary>
/// <param name="About">What they are asked about: getting in, backups, agreeing to risk, signing.</param>
/// <param name="Reach">How they are reached, as one would say it: a number, a desk, an address.</param>
public sealed record PersonToAsk(string Name, string About, string Reach)
{
    /// <summary>As it is written in a list: "NAME | ABOUT WHAT | HOW REACHED".</summary>
    public static Parsed<PersonToAsk> Parse(string text) =>
        text.Split('|', 3, StringSplitOptions.TrimEntries) is [{ Length: > 0 } name, var about, { Length: > 0 } reach]
            ? new Parsed<PersonToAsk>.Ok(new(name, about, reach))
            : new Parsed<PersonToAsk>.Refused($"'{Visible.Text(text)}' names nobody to ask; write NAME | ABOUT WHAT | HOW REACHED.");

    public override string ToString() => $"{Name} | {About} | {Reach}";
}

/// <summary>What whoever works there has to know of a customer: about what, and what.</summary>
public sealed record CustomerLine(string About, string Says);

/// <summary>Who owns appliances: whom to ask there, what was promised, and what was agreed on data and spares.</summary>
/// <param name="RespondHours">Promised at each of their sites that has no promise of its own: an engineer there within so many of its hours.</param>
/// <param name="RestoreHours">Likewise: redundancy back within so many of its hours.</param>
/// <param name="DataNote">Where that agreement stands, and what it says beside.</param>
/// <param name="Spares">Which spares they keep, where, and whose they are.</param>
/// <param name="PicturesKeptMonths">So many months after a ticket of theirs ends its pictures go; null where they are kept as long as the record.</param>
public sealed record Customer(
    string Name,
    IReadOnlyList<PersonToAsk>? People = null,
    int? RespondHours = null,
    int? RestoreHours = null,
    DataAgreement Data = DataAgreement.AskEachTime,
    string? DataNote = null,
    string? Spares = null,
    int? PicturesKeptMonths = null
)
{
    private const int MostOfAName = 200;
    private const int MostOfANote = 2_000;
    private const int MostPeople = 50;
    private const int MostHours = 8_760; // a year
    private const int MostMonths = 600;

    /// <summary>Whom to ask there and what was agreed, as whoever works there reads it.</summary>
    public IReadOnlyList<CustomerLine> Lines() =>
        [
            .. (People ?? []).Select(p => new CustomerLine("Ask", $"{p.Name}{(p.About is "" ? "" : $", {p.About}")}: {p.Reach}")),
            new("Data", DataNote is null ? DataTold : $"{DataTold} {DataNote}"),
            .. Spares is null ? Array.Empty<CustomerLine>() : [new("Spares", Spares)],
        ];

    /// <summary>What was promised to them as a whole, in words.</summary>
    public string Promised() =>
        (RespondHours, RestoreHours) switch
        {
            (null, null) => "as each site says",
            ({ } there, null) => $"there within {there} h",
            (null, { } whole) => $"redundancy back within {whole} h",
            ({ } there, { } whole) => $"there within {there} h, redundancy back within {whole} h",
        };

    private string DataTold =>
        Data switch
        {
            DataAgreement.MayLeave => "Drives with their data on them may leave.",
            DataAgreement.WipedFirst => "Drives with their data on them are wiped before they leave.",
            DataAgreement.StaysWithThem => "Drives with their data on them stay with them.",
            DataAgreement.DestroyedThere => "Drives with their data on them are destroyed there.",
            _ => "Nothing is agreed on drives with their data on them: ask, for each.",
        };

    /// <summary>What cannot be of it, as a sentence; null where all can.</summary>
    public string? Problem() =>
        string.IsNullOrWhiteSpace(Name)
            ? "A customer has a name."
            : TooLong("name", Name, MostOfAName)
                ?? TooLong("note on data", DataNote, MostOfANote)
                ?? TooLong("note on spares", Spares, MostOfANote)
                ?? Hours("an engineer", RespondHours)
                ?? Hours("redundancy", RestoreHours)
                ?? Months(PicturesKeptMonths)
                ?? ProblemOf(People ?? []);

    private string? ProblemOf(IReadOnlyList<PersonToAsk> people) =>
        people.Count > MostPeople
            ? $"{Name} has {people.Count} people to ask; at most {MostPeople} are kept."
            : people.Select(ProblemOf).FirstOrDefault(p => p is not null)
                ?? people
                    .GroupBy(p => p.Name, StringComparer.OrdinalIgnoreCase)
                    .Where(g => g.Count() > 1)
                    .Select(g => $"{g.Key} is there twice; one line says all that they are asked about.")
                    .FirstOrDefault();

    private static string? ProblemOf(PersonToAsk person) =>
        string.IsNullOrWhiteSpace(person.Name) ? "Somebody to ask has a name."
        : $"{person.Name}{person.About}{person.Reach}".AsSpan().ContainsAny('|', ';')
            ? $"'{person.Name}' has a ; or a | in its line; those stand between two of them in a list."
        : string.IsNullOrWhiteSpace(person.Reach) ? $"Say how {person.Name} is reached: a number, a desk, an address."
        : TooLong("name", person.Name, MostOfAName)
            ?? TooLong("line", person.About, MostOfAName)
            ?? TooLong("line", person.Reach, MostOfAName);

    private static string? Hours(string who, int? hours) =>
        hours is < 1 or > MostHours ? $"A promise of {who} within {hours} hours is none; 1 to {MostHours} are taken." : null;

    private static string? Months(int? months) =>
        months is < 1 or > MostMonths
            ? $"Pictures cannot be kept for {months} months after a ticket ends; 1 to {MostMonths} are taken, and none where they stay as long as the record."
            : null;

    private static string? TooLong(string what, string? text, int most) =>
        text?.Length > most ? $"That {what} has {text.Length} characters; at most {most} are taken." : null;
}
