using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Service.Tests.Situations;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>Makers that the service asks: what they say is kept with its time, and nothing they cannot mean comes on record.</summary>
[Collection(Stories.Name)]
public sealed class MakerTests(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<(Story Story, string Old)> SwappedAsync()
    {
        var story = new Story(firm);
        var old = await story.SwappedAsync();
        story.Waits(TimeSpan.FromDays(3)); // from now on it is now: what the maker says is of now
        return (story, old);
    }

    private static async Task<ClaimView> AnsweredAsync(Story story) =>
        (await Outside.ComesAsync(() => story.ViewAsync(), v => v.Claims is [.., { Answered: true }])).Claims[^1];

    [Fact]
    public async Task Before_anybody_travels_its_maker_says_whether_a_drive_is_under_warranty()
    {
        await using var maker = await Outside.MakerAsync(firm, "Cindral");
        var story = await new Story(firm).OnSiteAsync(parts: 0);
        var old = story.Machine.Serial("2");
        await maker.HandAsync($"warranty/{old}/2061-03-31");
        (await story.ViewAsync()).Moves.Single(m => m.Body is MakerAsked).About.ShouldBe(old);

        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.Warranty));

        (await AnsweredAsync(story)).Stand.ShouldBe(
            $"{maker.Name} on {old}: under warranty until 2061-03-31 (exchange in advance; media may be kept for a fee)"
        );
        await story.StartsAnewAsync();
        (await AnsweredAsync(story)).Stand.ShouldContain("under warranty until 2061-03-31");
    }

    [Fact]
    public async Task A_number_that_the_maker_gave_is_the_one_the_drive_goes_back_under()
    {
        await using var maker = await Outside.MakerAsync(firm, "Hask");
        var (story, old) = await SwappedAsync();
        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.AdvanceExchange, "Reads fail since Sunday"));
        await AnsweredAsync(story);

        var open = (await story.ViewAsync()).Moves.Single(m => m.Body is ReturnOpened { To.Kind: HolderKind.Maker });
        var (number, due) = (open.Fields.Single(f => f.Name == "authorisation").Value, open.Fields.Single(f => f.Name == "dueBy").Value);
        await story.DoesAsync(
            "ilka",
            new ReturnOpened(old, ReturnReason.ExchangeUnderWarranty, new(HolderKind.Maker, maker.Name), DataAgreedBy: "R. Alder")
        );

        var back = (await story.ViewAsync()).Returns.Single();
        number.ShouldNotBeNull().ShouldStartWith("AX-");
        (back.Authorisation, back.DueBy?.ToString("yyyy-MM-dd")).ShouldBe((number, due));
    }

    [Fact]
    public async Task Out_of_warranty_is_refused_with_the_makers_own_words_and_gives_no_number()
    {
        await using var maker = await Outside.MakerAsync(firm, "Pellworth");
        var (story, old) = await SwappedAsync();
        await maker.HandAsync($"warranty/{old}/2020-05-01");

        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.ReturnFirst));

        (await AnsweredAsync(story)).Stand.ShouldBe($"{maker.Name} refuses {old}: Its warranty ended on 2020-05-01.");
        (
            await story.RefusedAsync(
                "ilka",
                new ReturnOpened(old, ReturnReason.ExchangeUnderWarranty, new(HolderKind.Maker, maker.Name), DataAgreedBy: "R. Alder")
            )
        ).Sentence.ShouldContain("has an authorisation number");
        await maker.HandAsync($"warranty/{old}/2061-05-01"); // they looked again
        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.ReturnFirst));
        (await AnsweredAsync(story)).Stand.ShouldContain($"takes {old} back under AX-");
    }

    [Fact]
    public async Task A_claim_that_is_looked_at_waits_for_as_long_as_that_takes_and_is_answered_once()
    {
        await using var maker = await Outside.MakerAsync(firm, "Ostlane Drives");
        var (story, old) = await SwappedAsync();
        await maker.HandAsync($"review/{old}");
        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.AdvanceExchange));

        var waiting = await Outside.ErrandAsync(story, e => e.Says is not null);
        waiting.Says.ShouldBe($"{maker.Name} looks at it: Our laboratory looks at the log first.");
        await Outside.ComesAsync(maker.CallsAsync, calls => calls > 8); // more often than anything else is tried
        (await Outside.ErrandAsync(story, _ => true)).State.ShouldBe("waiting");
        (await story.RefusedAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.AdvanceExchange))).Sentence.ShouldContain(
            "has not answered yet"
        );
        await maker.HandAsync($"review/{old}");

        await AnsweredAsync(story);
        (await story.ToldAsync()).Count(t => t.StartsWith($"{maker.Name} takes {old} back under ")).ShouldBe(1);
    }

    [Fact]
    public async Task An_answer_about_another_drive_is_none_and_is_told_to_whoever_looks()
    {
        await using var maker = await Outside.MakerAsync(firm, "Muddled Makers");
        await maker.HandAsync("behave/wrong");
        var (story, old) = await SwappedAsync();
        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.AdvanceExchange));

        var errand = await Outside.ErrandAsync(story, e => e.State == "given-up");

        errand.Says.ShouldBe($"{maker.Name} answered what is no answer: it is about X{old}, and {old} was asked for.");
        (await story.ViewAsync()).Claims.Single().Answered.ShouldBeFalse();
        await maker.HandAsync("behave/well");
        await (await story.AsAsync("sefa")).SendAgainAsync(errand.Id, Ct);
        (await AnsweredAsync(story)).Stand.ShouldContain($"takes {old} back under");
    }

    [Fact]
    public async Task A_return_that_was_due_before_it_is_opened_is_a_slip()
    {
        var (story, old) = await SwappedAsync();

        var no = await story.RefusedAsync(
            "ilka",
            new ReturnOpened(
                old,
                ReturnReason.BackToStores,
                new(HolderKind.Depot, "Stores"),
                DueBy: new(2020, 1, 1),
                DataAgreedBy: "R. Alder"
            )
        );

        no.Status.ShouldBe(422);
        no.Sentence.ShouldStartWith("It would be due on 2020-01-01, before it is opened");
    }
}
