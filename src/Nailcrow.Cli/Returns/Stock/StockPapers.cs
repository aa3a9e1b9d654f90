using System.CommandLine;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;

namespace Nailcrow.Cli.Returns.Stock;

/// <summary>What stores prints.</summary>
internal static class StockPapers
{
    private const int MostNamed = 100; // they go in an address

    public static Command Labels()
    {
        var serials = new Argument<string[]>("SERIAL")
        {
            Description = "Whose labels; none for all that lies in one place.",
            Arity = ArgumentArity.ZeroOrMore,
            DefaultValueFactory = _ => [],
        };
        var (depot, van, shelf) = StockPlace.Options();
        var into = Said.Optional("--into", "Where it goes. Default: labels.pdf here.", "FILE");
        return new Command("labels", "Labels of parts as a PDF: one, or sheets of 24, with the serial as bars to scan.")
        {
            serials,
            depot,
            van,
            shelf,
            into,
        }.Does(async call =>
        {
            var path = call.Get(into) ?? "labels.pdf";
            if (call.Get(serials).Length > MostNamed)
                throw new UsageProblem($"At most {MostNamed} labels are printed by serial at once; say --depot and --shelf.");
            await Fetched.IntoAsync(
                path,
                file =>
                    call.Get(serials) is { Length: > 0 } some
                        ? call.Client.LabelsAsync(some, file, call.Ct)
                        : call.Client.LabelsAsync(StockPlace.Of(call, depot, van, shelf), file, call.Ct),
                call.Ct
            );
            call.Screen.Line($"{Screen.Safe(path)} is written.");
        });
    }

    public static Command PickingList()
    {
        var depot = Said.Optional("--depot", "Only this one.", "NAME");
        var into = Said.Optional("--into", "Where it goes. Default: picking-list.pdf here.", "FILE");
        return new Command("picking-list", "What to take off its shelf as a PDF, in the order of the shelves, with boxes to tick.")
        {
            depot,
            into,
        }.Does(async call =>
        {
            var path = call.Get(into) ?? "picking-list.pdf";
            await Fetched.IntoAsync(path, file => call.Client.PickingListAsync(call.Get(depot), file, call.Ct), call.Ct);
            call.Screen.Line($"{Screen.Safe(path)} is written.");
        });
    }
}
