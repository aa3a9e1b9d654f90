using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Core.Returns;

namespace Nailcrow.Cli.Returns.Stock;

/// <summary>Where in stores: a depot with its shelf, or somebody's van.</summary>
internal static class StockPlace
{
    public static (Option<string?> Depot, Option<string?> Van, Option<string?> Shelf) Options() =>
        (
            Said.Optional("--depot", "Which depot.", "NAME"),
            Said.Optional("--van", "Whose van.", "NAME"),
            Said.Optional("--shelf", "Which shelf of the depot.", "NAME")
        );

    public static Option<bool> NewDepot() =>
        new("--new-depot") { Description = "Nothing lies in this depot yet, and it is no other one that reads nearly the same." };

    public static Holder Of(Call call, Option<string?> depot, Option<string?> van, Option<string?> shelf) =>
        (call.Get(depot), call.Get(van)) switch
        {
            ({ } name, null) => new(HolderKind.Depot, name, call.Get(shelf)),
            (null, { } name) when call.Get(shelf) is null => new(HolderKind.Van, name),
            (null, not null) => throw new UsageProblem("A van has no shelves here; leave --shelf out."),
            _ => throw new UsageProblem("Say where: one of --depot NAME, with --shelf NAME if you like, and --van NAME."),
        };
}
