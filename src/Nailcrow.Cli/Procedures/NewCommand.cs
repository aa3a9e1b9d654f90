using System.CommandLine;
using System.Text.RegularExpressions;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Procedures;

namespace Nailcrow.Cli.Procedures;

/// <summary>Begins a procedure file that can be checked at once.</summary>
internal static partial class NewCommand
{
    public static Command Build()
    {
        var id = Said.Text("ID", "Its name: small letters, digits and hyphens.");
        var title = Said.Needed("--title", "What an engineer reads above it.");
        var folder = Said.Optional("--in", "The folder with skeletons and fragments. Default: procedures, or where you are.", "FOLDER");
        var bare = new Option<bool>("--without-skeleton") { Description = "Write all chapters yourself." };
        return new Command("new", "Begin a procedure file, from the skeleton 'swap' or from nothing.") { id, title, folder, bare }.Does(
            call =>
            {
                var name = call.Get(id);
                if (!Name().IsMatch(name))
                    throw new UsageProblem(
                        $"'{name}' is no name for a procedure; accepted: small letters, digits and hyphens, beginning with a letter, at most 40."
                    );
                var place = call.Get(folder) ?? (Directory.Exists("procedures") ? "procedures" : ".");
                Directory.CreateDirectory(place);
                var path = Path.Combine(place, name + ".yaml");
                var isBare = call.Get(bare) || !File.Exists(Path.Combine(place, Shelf.SkeletonFolder, "swap.yaml"));
                if (File.Exists(path))
                    throw new Refusal($"{path} is there already; nothing was changed.");
                File.WriteAllText(path, isBare ? Bare(name, call.Get(title)!) : Variant(name, call.Get(title)!)); // the option is required
                call.Screen.Line($"{Screen.Safe(path)} is begun. 'nailcrow procedure check {Screen.Safe(path)}' says what is still wrong.");
                if (isBare && !call.Get(bare))
                    call.Screen.Line(
                        $"There is no skeleton '{Shelf.SkeletonFolder}/swap.yaml' beside it, so all its chapters are yours to write."
                    );
                return Task.CompletedTask;
            }
        );
    }

    private static string Quoted(string title) =>
        $"\"{title.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("\"", "\\\"", StringComparison.Ordinal)}\"";

    private static string Variant(string id, string title) =>
        $"""
            # A variant of the skeleton 'swap'. What it fills and adds is its own; what the skeleton demands stays.
            procedure: {id}
            title: {Quoted(title)}
            comes-back: by-rebuild
            applies-to: model.loading is front and model.swap is hot and ticket.job is fault and ticket.drives is 1
            skeleton: swap
            fills:
              open-up: []
              close-up: []

            """;

    private static string Bare(string id, string title) =>
        $"""
            # docs/procedures.md says what stands here.
            procedure: {id}
            title: {Quoted(title)}
            comes-back: unchanged
            by-name: yes
            applies-to: always
            not-so: stuck
            chapters:
              - chapter: Look
                steps:
                  - id: seen
                    gate: The machine was looked at.
                    needs: seen-again
                    then: end
                  - id: stuck
                    call: It is not as the sheet says. Call, and say what you see.
                    with: [asset]
                    then: back

            """;

    [GeneratedRegex("^[a-z][a-z0-9-]{0,39}$")]
    private static partial Regex Name();
}
