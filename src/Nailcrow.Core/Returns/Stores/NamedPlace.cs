using System.Globalization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Stores;

/// <summary>
/// What a place is that somebody named. A part in the van of nobody, or in a depot that is only another's misspelt name, is on
/// no list that anybody reads.
/// </summary>
public abstract record NamedPlace
{
    private NamedPlace() { }

    /// <summary>It is there, by the name it goes by; or it is new, and like no other.</summary>
    public sealed record There(Holder Place) : NamedPlace;

    /// <summary>No depot is called so, and one is nearly: which of both is meant has to be said.</summary>
    public sealed record Near(string Depot, string Says) : NamedPlace;

    /// <summary>Nobody can have such a van.</summary>
    public sealed record Nobodys(string Says) : NamedPlace;

    /// <param name="depots">Depots in which something lies.</param>
    /// <param name="drivers">Who has a van: engineers who may come in.</param>
    /// <param name="isNew">It was looked at again: it is another depot than the one it reads nearly like.</param>
    public static NamedPlace Of(Holder said, IReadOnlyCollection<string> depots, IReadOnlyCollection<string> drivers, bool isNew)
    {
        var name = said.Name.Trim();
        return said.Kind == HolderKind.Van ? VanOf(name, drivers) : DepotOf(said with { Name = name }, depots, isNew);
    }

    private static NamedPlace VanOf(string name, IReadOnlyCollection<string> drivers) =>
        Called(name, drivers) is { } driver
            ? new There(new(HolderKind.Van, driver))
            : new Nobodys(
                $"'{name}' is no engineer here, and has no van; "
                    + (
                        drivers.Count == 0
                            ? "there is no engineer yet."
                            : $"engineers: {string.Join(", ", drivers.Order(StringComparer.Ordinal))}."
                    )
            );

    private static NamedPlace DepotOf(Holder said, IReadOnlyCollection<string> depots, bool isNew) =>
        Called(said.Name, depots) is { } called ? new There(said with { Name = called })
        : !isNew && NearTo(said.Name, depots) is { } near
            ? new Near(near, $"Nothing lies in a depot '{said.Name}', and there is {near}. Say which it is.")
        : new There(said);

    /// <summary>Nobody spells two depots alike but for capitals and blanks.</summary>
    private static string? Called(string name, IReadOnlyCollection<string> known) =>
        known.Contains(name) ? name : known.FirstOrDefault(k => Folded(k) == Folded(name));

    /// <summary>One slip of the hand away, but not in a number: "Depot 1" and "Depot 2" are two.</summary>
    private static string? NearTo(string name, IEnumerable<string> known) =>
        Nearest.Of(Folded(name), known.Where(k => Digits(k) == Digits(name)), Folded, name.Length < Short ? 1 : MostSlips);

    private const int MostSlips = 2;
    private const int Short = 8;

    private static string Folded(string name) =>
        string.Concat(name.Where(c => !char.IsWhiteSpace(c))).ToLower(CultureInfo.InvariantCulture);

    private static string Digits(string name) => string.Concat(name.Where(char.IsDigit));
}
