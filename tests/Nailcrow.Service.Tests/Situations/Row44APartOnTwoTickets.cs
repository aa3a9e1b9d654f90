using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>One part for two tickets, or in two places: it is noticed when it happens, on both, and both can go on.</summary>
[Collection(Stories.Name)]
public sealed class Row44APartOnTwoTickets(TheFirm firm)
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task It_is_set_aside_once_and_is_free_again_when_it_is_given_up()
    {
        var first = await new Story(firm).OnSiteAsync(issued: false);
        var second = await new Story(firm).OnSiteAsync(parts: 0);
        var taken = new PartReserved(first.Parts[0], "Cindral C8", 8_000_000_000_000, "Stores");

        var (status, sentence) = await second.RefusedAsync("sefa", taken);

        (status, sentence).ShouldBe(
            (409, $"{first.Parts[0]} is set aside for T-{first.Ticket} already. Take another part, or give it up there first.")
        );
        await second.DoesAsync("sefa", taken with { Serial = $"OTHER{second.Ticket}X" });
        var other = await second.LastAsync<PartReserved>();
        (await second.RefusedAsync("sefa", new EntryCorrected(other.Id, "Read wrongly", taken))).Sentence.ShouldBe(sentence);
        await first.DoesAsync("sefa", new PartGivenUp(first.Parts[0], NoReplacement.DoesNotFit));
        await second.DoesAsync("sefa", taken);
    }

    [Fact]
    public async Task Of_two_who_set_it_aside_at_once_one_is_told()
    {
        var first = await new Story(firm).OnSiteAsync(parts: 0);
        var second = await new Story(firm).OnSiteAsync(parts: 0);
        var sefa = await first.AsAsync("sefa");
        var part = new PartReserved($"ONCE{first.Ticket}X", "Cindral C8", 8_000_000_000_000, "Stores");

        var both = new[] { first.Ticket, second.Ticket }.Select(async ticket =>
        {
            try
            {
                await sefa.WriteAsync(ticket, part, Ct);
                return "taken";
            }
            catch (Client.ApiProblem no)
            {
                return no.Message;
            }
        });

        var answers = await Task.WhenAll(both);
        answers.Count(a => a == "taken").ShouldBe(1);
        answers.Single(a => a != "taken").ShouldContain("is set aside for T-");
    }

    [Fact]
    public async Task What_one_ticket_uses_that_another_waits_for_is_told_on_both_and_neither_is_stuck()
    {
        var first = await new Story(firm).OnSiteAsync();
        var second = await new Story(firm).OnSiteAsync(bay: "4", parts: 0);
        var part = first.Parts[0];

        await second.DoesAsync("sefa", new PartIssued(part, "tamsel"));

        var (here, there) = (await first.ViewAsync(), await second.ViewAsync());
        here.Discrepancies.Single(d => d.About == "serial")
            .Sentence.ShouldBe(
                $"{part} was this ticket's; by T-{second.Ticket} it is with engineer tamsel now. Settle which record is wrong."
            );
        (here.Next.Who, here.Next.Move).ShouldBe(("stores", Move.ReservePart));
        there.Discrepancies.ShouldContain(d => d.Sentence.Contains(part));
        await first.StartsAnewAsync();
        await first.PartAsync();
        await first.StartAsync();
        await first.FollowAsync();
        foreach (var open in (await first.ViewAsync()).Discrepancies)
            await first.DoesAsync("lioth", new Core.Tickets.Ending.DiscrepancySettled(open.Id, "Tamsel had it by mistake."));
        (await first.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }
}
