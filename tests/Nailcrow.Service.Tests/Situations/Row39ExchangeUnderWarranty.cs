using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>The new drive came first: the old one has its day, and its price when it is late; and what comes of it is written down.</summary>
[Collection(Stories.Name)]
public sealed class Row39ExchangeUnderWarranty(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<(Story Story, string Old)> SwappedAsync()
    {
        var story = new Story(firm);
        var old = await story.SwappedAsync();
        return (story, old);
    }

    [Fact]
    public async Task The_maker_says_by_when_and_what_it_costs_the_carrier_fetches_it_and_it_is_exchanged()
    {
        await using var maker = await Outside.MakerAsync(firm, "Cindral Exchange");
        await using var carrier = await Outside.CarrierAsync(firm, "Exchange Express");
        var (story, old) = await SwappedAsync();
        story.Waits(TimeSpan.FromDays(3)); // what the maker says is of now
        await story.DoesAsync("ilka", new MakerAsked(old, maker.Name, MakerQuestion.AdvanceExchange));
        await Outside.ComesAsync(() => story.ViewAsync(), v => v.Claims is [.., { Answered: true }]);
        await story.DoesAsync(
            "ilka",
            new ReturnOpened(old, ReturnReason.ExchangeUnderWarranty, new(HolderKind.Maker, maker.Name), DataAgreedBy: "R. Alder")
        );

        var view = await story.ViewAsync();
        var due = view.Returns.Single().DueBy!.Value;
        view.Returns.Single().LateCost.ShouldBe("180.00 EUR");
        view.Next.Say.ShouldBe($"Send {old} back, to be there by {due:yyyy-MM-dd} (late, it costs 180.00 EUR).");
        view.Deadlines.Single(d => d.Kind == DeadlineKind.Return).About.ShouldBe(old);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await Outside.ComesAsync(() => story.ViewAsync(), v => v.Parcels[0].Label is not null)).Parcels[0].Label;
        await story.StartsAnewAsync();
        await carrier.HandAsync($"parcel/{label}/delivered");
        await Outside.ComesAsync(() => story.ViewAsync(), v => v.Returns.Single().ArrivedAt is not null);

        await story.DoesAsync("sefa", new ReturnSettled(old, Outcome.Exchanged));
        await story.DoesAsync("ilka", new CustomerSignedOff("R. Alder"));
        await story.DoesAsync("ilka", new TicketClosed());
        (await story.ViewAsync()).Deadlines.Single(d => d.Kind == DeadlineKind.Return).MetAt.ShouldNotBeNull();
        (await (await story.AsAsync("sefa")).PartAsync(old, Ct)).Now!.Holder.Kind.ShouldBe(HolderKind.Maker);
    }

    [Fact]
    public async Task A_late_one_is_told_where_its_people_look_and_is_charged_as_was_said()
    {
        var (story, old) = await SwappedAsync();
        var due = DateOnly.FromDateTime(DateTime.UtcNow.AddDays(-1));

        await story.DoesAsync(
            "ilka",
            new ReturnOpened(
                old,
                ReturnReason.ExchangeUnderWarranty,
                new(HolderKind.Maker, "Cindral"),
                "RX-39",
                due,
                "R. Alder",
                "95.00 EUR"
            )
        );

        var line = (await (await story.AsAsync("dorrik")).TicketsAsync(new(Ended: false, Asset: story.Asset), Ct)).Tickets.Single();
        (line.Due, line.DueAt).ShouldBe((DeadlineKind.Return, new DateTimeOffset(due.AddDays(1), TimeOnly.MinValue, TimeSpan.Zero)));
        Priority.Of(line, DateTimeOffset.UtcNow).Because.ShouldContain("return was due ");
        await story.StartsAnewAsync();
        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
        (await story.ViewAsync()).Next.Say.ShouldBe(
            $"Book {old} in when it arrives, to be there by {due:yyyy-MM-dd} (late, it costs 95.00 EUR)."
        );
        (await (await story.AsAsync("sefa")).StoresAsync(null, Ct)).Late.ShouldContain(p => p.Serial == old);
        await story.DoesAsync("sefa", new ReturnArrived(old, old));
        (await story.RefusedAsync("sefa", new ReturnSettled(old, Outcome.Charged))).Sentence.ShouldBe(
            "Say what is charged, with its currency."
        );
        await story.DoesAsync("sefa", new ReturnSettled(old, Outcome.Charged, "95.00 EUR", "Two days late"));

        (await story.ReportSaysAsync()).ShouldContain(l => l.Contains("95.00 EUR"));
        (await (await story.AsAsync("sefa")).StoresAsync(null, Ct)).Late.ShouldNotContain(p => p.Serial == old);
    }

    [Fact]
    public async Task A_claim_that_is_refused_after_all_ends_with_the_makers_reason()
    {
        var (story, old) = await SwappedAsync();
        await story.DoesAsync(
            "ilka",
            new ReturnOpened(old, ReturnReason.ExchangeUnderWarranty, new(HolderKind.Maker, "Cindral"), "RX-40", DataAgreedBy: "R. Alder")
        );
        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
        await story.DoesAsync("sefa", new ReturnArrived(old, old));

        (await story.RefusedAsync("sefa", new ReturnSettled(old, Outcome.Refused))).Sentence.ShouldStartWith(
            "Say why the claim was refused"
        );
        await story.DoesAsync("sefa", new ReturnSettled(old, Outcome.Refused, Note: "It was opened"));
        await story.StartsAnewAsync();

        var back = (await story.ViewAsync()).Returns.Single();
        (back.Outcome, back.OutcomeSays).ShouldBe((Outcome.Refused, "It was opened"));
        await story.DoesAsync("ilka", new CustomerSignedOff("R. Alder"));
        await story.DoesAsync("ilka", new TicketClosed());
    }
}
