using System.Text.Json;

namespace Nailcrow.Cli.Tests;

/// <summary>The list of moves tells commands; each of them is typed as it stands there.</summary>
public sealed class MovesCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    /// <summary>What a person types for the words in capitals.</summary>
    private static readonly Dictionary<string, string> Typed = new()
    {
        ["REASON"] = "As agreed with the porter",
        ["TEXT"] = "As agreed with the porter",
        ["HOW"] = "A label was read wrongly",
        ["COPIES"] = "used-space",
        ["AMOUNT"] = "140.00 EUR",
        ["METHOD"] = "Sanitize command",
        ["NAME"] = "ilka",
        ["ENGINEER"] = "ilka",
        ["SERIAL"] = "CDR12TNEW9",
        ["MODEL"] = "Cindral C12T",
        ["SIZE"] = "14TB",
        ["DEPOT"] = "Stores",
        ["CARRIER"] = "Overfell Parcels",
        ["NUMBER"] = "RX-4411",
        ["WAY"] = "handed-over",
        ["PERCENT"] = "62.5",
        ["BAY..."] = "5",
        ["BAY=SERIAL,ROLE,HEALTH,ARRAY"] = "5=CDR12T0005,dropped,faulted,catalogue",
        ["ANSWER"] = "yes",
        ["CHANGE"] = "found-off",
        ["FINDING"] = "nothing-wrong",
        ["SUPPLY"] = "screws",
        ["COUNT"] = "2",
    };

    [Theory, InlineData("ilka"), InlineData("dorrik"), InlineData("sefa"), InlineData("lioth")]
    public async Task Every_command_that_is_told_to_a_person_is_understood_and_not_refused(string who)
    {
        var (ticket, other) = (await use.TypedTicketAsync(), await use.TypedTicketAsync());
        var typed = new Dictionary<string, string>(Typed)
        {
            ["OTHER"] = other,
            ["INTO"] = other,
            ["HOW"] = "same-visit",
            ["SERIAL"] = $"CDR12T{who.ToUpperInvariant()}9", // each part is set aside once
        };
        var told = await ToldAsync(who, ticket);
        told.Count.ShouldBeGreaterThan(3);
        foreach (var line in told)
        {
            var words = line.Replace("TIME", Tomorrow).Split(' ')[1..];
            if (words is ["run", "follow", ..])
                continue; // asks at the keyboard
            var ended = await use.Command.RunAsync([.. words.Select(w => typed.GetValueOrDefault(w, w)), "--as", who]);
            // What an earlier one has made impossible is not told any more either.
            if (ended.Code != 0)
                (await ToldAsync(who, ticket)).ShouldNotContain(line, $"{who}: {line}\n{ended.All}");
        }
    }

    private static readonly string[] Ending = ["cancel", "close", "join"];

    private static string Tomorrow =>
        DateTimeOffset.UtcNow.AddDays(1).ToString("yyyy-MM-ddTHH:mmZ", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>The lines under "you may"; what ends the ticket comes last.</summary>
    private async Task<IReadOnlyList<string>> ToldAsync(string who, string ticket) =>
        [
            .. (await use.Command.DoneAsync("ticket", "moves", ticket, "--as", who))
                .Split('\n')
                .TakeWhile(l => !l.StartsWith("not now", StringComparison.Ordinal))
                .Where(l => l.Contains("nailcrow ", StringComparison.Ordinal))
                .Select(l => l[l.IndexOf("nailcrow ", StringComparison.Ordinal)..].Trim())
                .OrderBy(l => Ending.Any(w => l.Contains($" {w} ", StringComparison.Ordinal)) ? 1 : 0),
        ];

    [Fact]
    public async Task For_scripts_the_same_list_has_stable_fields()
    {
        var ticket = await use.TypedTicketAsync();

        var list = JsonDocument.Parse(await use.Command.DoneAsync("ticket", "moves", ticket, "--json")).RootElement;

        var note = list.GetProperty("moves").EnumerateArray().Single(m => m.GetProperty("move").GetString() == "write-note");
        note.GetProperty("whyNot").ValueKind.ShouldBe(JsonValueKind.Null);
        note.GetProperty("fields")[0].GetProperty("name").GetString().ShouldBe("text");
    }
}
