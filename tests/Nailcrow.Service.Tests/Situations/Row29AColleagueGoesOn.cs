using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The engineer leaves before the end, and a colleague goes on with everything that was theirs.</summary>
[Collection(Stories.Name)]
public sealed class Row29AColleagueGoesOn(TheFirm firm)
{
    [Fact]
    public async Task Run_part_and_old_drive_go_over_in_one_entry_and_both_names_stay_in_the_record()
    {
        var story = await new Story(firm).AtAsync("mark-bad"); // the old drive is out, the new one in the bag
        var (old, part) = ((await story.ViewAsync()).Swap.OutSerial!, story.Parts[0]);

        await story.DoesAsync("ilka", new HandedOver("ilka", "tamsel", "Keys are with the porter."));
        await story.StartsAnewAsync();
        story.Engineer = "tamsel";
        var view = await story.ViewAsync();
        view.Engineer.ShouldBe("tamsel");
        foreach (var serial in new[] { old, part })
            view.Custody.Last(c => c.Serial == serial).To.ShouldBe(new Holder(HolderKind.Engineer, "tamsel"));
        view.Run!.Current!.Id.ShouldBe("mark-bad");
        (await story.ToldAsync()).ShouldContain("ilka handed over to tamsel: Keys are with the porter.");

        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        closed.Run!.Visits.Where(v => v.Step == "pull").Select(v => v.By).ShouldBe(["ilka"]);
        closed.Run.Visits.Where(v => v.Step == "insert").Select(v => v.By).ShouldBe(["tamsel"]);
    }

    [Fact]
    public async Task Only_who_has_it_or_who_plans_hands_it_over_and_only_to_an_engineer_there_is()
    {
        var story = await new Story(firm).OnSiteAsync();

        (await story.RefusedAsync("tamsel", new HandedOver("ilka", "tamsel"))).Sentence.ShouldBe(
            "ilka hands it over, or a dispatcher or a lead does."
        );
        (await story.RefusedAsync("ilka", new HandedOver("ilka", "ilka"))).Sentence.ShouldBe("ilka has it already.");
        (await story.RefusedAsync("ilka", new HandedOver("ilka", "nobody"))).Sentence.ShouldBe(
            "'nobody' is no engineer here; engineers: ilka, tamsel."
        );
        (await story.RefusedAsync("dorrik", new HandedOver("tamsel", "ilka"))).Sentence.ShouldContain("is with ilka, not with tamsel.");
        await story.DoesAsync("dorrik", new HandedOver("ilka", "tamsel"));
    }

    [Fact]
    public async Task Nobody_is_nobody_to_assign_or_to_give_a_part_to()
    {
        var story = await new Story(firm).OnSiteAsync();

        (await story.RefusedAsync("dorrik", new EngineerAssigned("nobody"))).Sentence.ShouldStartWith("'nobody' is no engineer here");
        (await story.RefusedAsync("dorrik", new EngineerAssigned("sefa"))).Sentence.ShouldStartWith("'sefa' is no engineer here");
        (await story.RefusedAsync("sefa", new PartIssued(story.Parts[0], "ilsa"))).Sentence.ShouldStartWith("'ilsa' is no engineer here");
    }
}
