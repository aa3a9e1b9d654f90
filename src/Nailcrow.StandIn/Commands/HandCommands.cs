using System.CommandLine;

namespace Nailcrow.StandIn.Commands;

/// <summary>Hands at a running stand-in, from the command line: each is one call to its aisle.</summary>
internal static class HandCommands
{
    private static readonly Option<Uri> At = new("--at")
    {
        Description = "Where the stand-in answers.",
        HelpName = "URL",
        Recursive = true,
        DefaultValueFactory = _ => new Uri("http://127.0.0.1:7421"),
        CustomParser = Address,
    };

    internal static Uri? Address(System.CommandLine.Parsing.ArgumentResult result)
    {
        if (Uri.TryCreate(result.Tokens[0].Value, UriKind.Absolute, out var url) && url.Scheme == "http")
            return url;
        result.AddError($"'{result.Tokens[0].Value}' is no address; write one like http://127.0.0.1:7421.");
        return null;
    }

    public static void AddTo(RootCommand root)
    {
        root.Options.Add(At);
        var bay = new Argument<int>("BAY") { Description = "The label printed at the bay." };
        AddDrives(root, bay);
        AddArrays(root, bay);
        AddMachine(root);
        AddPartners(root);
        root.Subcommands.Add(Look());
    }

    private static void AddDrives(RootCommand root, Argument<int> bay)
    {
        root.Subcommands.Add(Hand("fail", "The drive in a bay fails.", [bay], p => $"fail/{p.GetValue(bay)}"));
        root.Subcommands.Add(Hand("warn", "The drive in a bay warns that it will fail.", [bay], p => $"warn/{p.GetValue(bay)}"));
        root.Subcommands.Add(Hand("pull", "Pull the drive out of a bay.", [bay], p => $"pull/{p.GetValue(bay)}"));
        var serial = new Argument<string>("SERIAL") { Description = "A drive at hand." };
        root.Subcommands.Add(
            Hand(
                "insert",
                "Put a drive at hand into a bay.",
                [bay, serial],
                p => $"insert/{p.GetValue(bay)}/{Uri.EscapeDataString(p.GetValue(serial)!)}"
            )
        );
        root.Subcommands.Add(
            Hand(
                "fail-listed",
                "The drive in a bay fails, and its array goes on listing it as a member.",
                [bay],
                p => $"fail-listed/{p.GetValue(bay)}"
            )
        );
        var percent = new Argument<decimal>("PERCENT") { Description = "How far a rebuild is then." };
        root.Subcommands.Add(
            Hand(
                "fail-at",
                "The drive in a bay fails once a rebuild has come so far.",
                [bay, percent],
                p => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"fail-at/{p.GetValue(bay)}/{p.GetValue(percent)}")
            )
        );
        root.Subcommands.Add(
            Hand("refuse", "A bay takes no drive, or, asked once more, takes them again.", [bay], p => $"refuse/{p.GetValue(bay)}")
        );
    }

    private static void AddArrays(RootCommand root, Argument<int> bay)
    {
        var array = new Argument<string>("ARRAY") { Description = "vault or desk." };
        root.Subcommands.Add(
            Hand(
                "start",
                "Start a rebuild on the machine's own screen.",
                [array, bay],
                p => $"start/{Uri.EscapeDataString(p.GetValue(array)!)}/{p.GetValue(bay)}"
            )
        );
        root.Subcommands.Add(
            Hand("finish", "Bring an array's rebuild to its end now.", [array], p => $"finish/{Uri.EscapeDataString(p.GetValue(array)!)}")
        );
        root.Subcommands.Add(
            Hand(
                "take-over",
                "The spare steps in for what an array is missing.",
                [array],
                p => $"take-over/{Uri.EscapeDataString(p.GetValue(array)!)}"
            )
        );
    }

    private static void AddMachine(RootCommand root)
    {
        root.Subcommands.Add(Hand("restart", "The machine restarts; a rebuild begins anew.", [], _ => "restart"));
        var manner = new Argument<string>("MANNER")
        {
            Description =
                "well, hangs, garbage, flood, slow; a machine also: frozen, forgets, contradicts, patchy (one drive cannot be read) or "
                + "vague (no percentage of a rebuild); a carrier or maker also: down, wrong, refuses.",
        };
        root.Subcommands.Add(
            Hand(
                "behave",
                "How a machine's management interface, a carrier or a maker behaves.",
                [manner],
                p => $"behave/{Uri.EscapeDataString(p.GetValue(manner)!)}"
            )
        );
        root.Subcommands.Add(
            Hand("new-certificate", "The machine's management interface shows another certificate.", [], _ => "new-certificate")
        );
        root.Subcommands.Add(Hand("forget-sessions", "It forgets who was signed in at it.", [], _ => "forget-sessions"));
    }

    /// <summary>Hands at a carrier and at a maker.</summary>
    private static void AddPartners(RootCommand root)
    {
        var label = new Argument<string>("LABEL") { Description = "The carrier's number for the parcel." };
        var step = new Argument<string>("STEP") { Description = "collected, on-the-way, held, delivered, damaged, lost or comes-back." };
        var place = new Option<string?>("--place") { Description = "Where it is then.", HelpName = "TEXT" };
        var says = new Option<string?>("--says") { Description = "What the carrier says of it.", HelpName = "TEXT" };
        var when = new Option<string?>("--when")
        {
            Description = "When by the carrier's clock, as 2026-11-28T10:00:00Z.",
            HelpName = "TIME",
        };
        var parcel = Hand(
            "parcel",
            "Something becomes of a parcel, at a carrier's.",
            [label, step],
            p =>
                $"parcel/{Uri.EscapeDataString(p.GetValue(label)!)}/{Uri.EscapeDataString(p.GetValue(step)!)}?"
                + string.Join(
                    '&',
                    new[] { ("place", p.GetValue(place)), ("says", p.GetValue(says)), ("at", p.GetValue(when)) }
                        .Where(q => q.Item2 is not null)
                        .Select(q => $"{q.Item1}={Uri.EscapeDataString(q.Item2!)}")
                )
        );
        parcel.Options.Add(place);
        parcel.Options.Add(says);
        parcel.Options.Add(when);
        root.Subcommands.Add(parcel);
        var serial = new Argument<string>("SERIAL") { Description = "A drive." };
        var until = new Argument<string>("DAY") { Description = "The last day, as 2027-03-31." };
        root.Subcommands.Add(
            Hand(
                "warranty",
                "Until when a drive has warranty, at a maker's.",
                [serial, until],
                p => $"warranty/{Uri.EscapeDataString(p.GetValue(serial)!)}/{Uri.EscapeDataString(p.GetValue(until)!)}"
            )
        );
        root.Subcommands.Add(
            Hand(
                "review",
                "A maker looks at claims for a drive first, or, asked once more, answers them.",
                [serial],
                p => $"review/{Uri.EscapeDataString(p.GetValue(serial)!)}"
            )
        );
    }

    private static Command Look()
    {
        var look = new Command("look", "What stands there now, as JSON.");
        look.SetAction(
            async (parsed, ct) =>
            {
                using var http = new HttpClient { BaseAddress = parsed.GetValue(At) };
                await parsed.InvocationConfiguration.Output.WriteLineAsync(await http.GetStringAsync("aisle/", ct));
            }
        );
        return look;
    }

    private static Command Hand(string name, string says, Argument[] arguments, Func<ParseResult, string> path)
    {
        var command = new Command(name, says);
        foreach (var argument in arguments)
            command.Arguments.Add(argument);
        command.SetAction(
            async (parsed, ct) =>
            {
                using var http = new HttpClient { BaseAddress = parsed.GetValue(At) };
                using var answer = await http.PostAsync($"aisle/{path(parsed)}", null, ct);
                var output = answer.IsSuccessStatusCode ? parsed.InvocationConfiguration.Output : parsed.InvocationConfiguration.Error;
                await output.WriteLineAsync(await answer.Content.ReadAsStringAsync(ct));
                return answer.IsSuccessStatusCode ? 0 : 1;
            }
        );
        return command;
    }
}
