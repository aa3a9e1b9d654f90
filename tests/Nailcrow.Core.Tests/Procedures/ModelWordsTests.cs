using System.Text.Json;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>What a model says of itself fills the blanks of steps that were proved without it: it tells nobody to move or empty a drive.</summary>
public class ModelWordsTests
{
    [Theory]
    [InlineData("Pull the drive at once.", "pull")]
    [InlineData("failed; REMOVE THE DISK", "remove")]
    [InlineData("swap bay 4 without waiting", "swap")]
    [InlineData("Erase the drive to silence it.", "erase")]
    public void A_lamp_a_way_in_or_an_alarm_that_says_what_to_do_is_refused_with_the_word(string text, string word)
    {
        foreach (
            var model in new[]
            {
                Some.Model with
                {
                    Lamps = [new("amber, steady", text)],
                },
                Some.Model with
                {
                    WaysIn = ["Web page", text],
                },
                Some.Model with
                {
                    NormalDuringRebuild = [text],
                },
            }
        )
            ModelWords.Problems(model).ShouldHaveSingleItem().ShouldStartWith($"Model 'brackmere-b12' says '{word}' in its ");
    }

    [Theory]
    [InlineData("Press the latch and draw the drive out.", false)]
    [InlineData("Push the carrier in and erase the drive.", true)]
    public void How_one_gets_at_a_drive_may_move_it_and_never_empty_it(string latch, bool refused) =>
        ModelWords.Problems(Some.Model with { Latch = latch }).Any().ShouldBe(refused);

    [Theory]
    [InlineData("Do not pull the drive: it may be good")]
    [InlineData("released, may be pulled")]
    [InlineData("failed or empty")]
    public void What_a_lamp_means_may_name_a_drive_and_warn_of_pulling_it(string text) =>
        ModelWords.Problems(Some.Model with { Lamps = [new("amber", text)] }).ShouldBeEmpty();

    [Fact]
    public void The_demos_models_tell_nobody_what_to_do()
    {
        var file = Path.Combine(Shipped.Folder, "..", "demo", "reference.json");
        using var reference = JsonDocument.Parse(File.ReadAllText(file));
        var models = reference.RootElement.GetProperty("models").EnumerateArray().Select(m => m.GetRawText()).ToList();

        models.ShouldNotBeEmpty();
        models
            .SelectMany(m => ModelWords.Problems(JsonSerializer.Deserialize(m, JournalJson.Default.ApplianceModel)!)) // a model is none of null
            .ShouldBeEmpty();
    }
}
