using System.Net;
using System.Text;
using System.Text.Json;
using Nailcrow.Client.Returns;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Running;
using Nailcrow.Service.Tests.Situations;
using Nailcrow.Service.Tests.Swaps;

namespace Nailcrow.Service.Tests.Returns;

/// <summary>Carriers that the service asks: what leaves is on record first, is said until it is heard, and is said once.</summary>
[Collection(Stories.Name)]
public sealed class CarrierTests(TheFirm firm)
{
    private static readonly Holder Stores = new(HolderKind.Depot, "Stores");
    private static readonly Holder Maker = new(HolderKind.Maker, "Cindral");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<(Story Story, string Old)> GoesBackAsync(Holder to, bool firstPartWasDead = false)
    {
        var story = new Story(firm);
        return (story, await story.GoesBackAsync(to, firstPartWasDead));
    }

    [Fact]
    public async Task A_box_is_booked_and_what_the_carrier_tells_of_it_moves_the_drive_until_stores_has_read_it()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Gullwing Freight", tells: true);
        var (story, old) = await GoesBackAsync(Stores);

        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;

        (await story.ViewAsync()).Next.Say.ShouldStartWith($"Hand {old} to {carrier.Name} with the label {label}; they come on ");
        var ilka = await story.AsAsync("ilka");
        var paper = await PrintedPaper.OfAsync(into => ilka.DocumentAsync(story.Ticket, PaperKind.ReturnLabel, old, into, Ct));
        paper.Sheets.ShouldBe(1);
        paper.Scanned.ShouldContain(label); // theirs, beside the serial and the ticket
        paper.Scanned.ShouldContain(old);
        await carrier.HandAsync($"parcel/{label}/collected?place=Quay 3");
        var sent = (await story.ViewAsync()).Returns.Single();
        (sent.Carrier, sent.Tracking, sent.SentAt is not null).ShouldBe((carrier.Name, label, true));
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.ShouldBe(new(HolderKind.Carrier, carrier.Name));

        await carrier.HandAsync($"parcel/{label}/delivered");
        (await story.ViewAsync()).Next.Say.ShouldBe($"Open the box {label} that {carrier.Name} delivered, and book {old} in.");
        (await story.ViewAsync()).Returns.Single().ArrivedAt.ShouldBeNull(); // what is in it is read, not assumed
        await story.DoesAsync("sefa", new ReturnArrived(old, old));
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.ShouldBe(Stores);
    }

    [Fact]
    public async Task Who_is_only_asked_tells_the_same_once_and_what_a_maker_got_is_with_the_maker()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Overfell Parcels");
        var (story, old) = await GoesBackAsync(Maker);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;
        await carrier.HandAsync($"parcel/{label}/on-the-way?place=Harrow depot"); // they forgot to say that they fetched it
        await Outside.ParcelAsync(story, p => p.Said.Count == 1);
        (await story.ViewAsync()).Returns.Single().SentAt.ShouldNotBeNull();

        await carrier.HandAsync($"parcel/{label}/delivered");
        var parcel = await Outside.ParcelAsync(story, p => p.Said.Count == 2);
        var calls = await carrier.CallsAsync();

        parcel.Stand.ShouldBe($"{carrier.Name} {label}: delivered");
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.ShouldBe(Maker);
        await story.StartsAnewAsync(); // it is not asked again about what has ended, and nothing is told twice
        (await Outside.ParcelAsync(story, _ => true)).Said.Count.ShouldBe(2);
        (await carrier.CallsAsync() - calls).ShouldBeLessThan(2);
    }

    [Fact]
    public async Task A_box_that_nothing_goes_into_any_more_is_called_off_by_itself_and_its_drive_may_be_fetched_anew()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Stay Home Carriers");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var booked = await Outside.ParcelAsync(story, p => p.Label is not null);

        await story.DoesAsync("ilka", new DriveKept(old, "R. Alder"));

        var off = await Outside.ErrandAsync(story, e => e.What.Contains("not to fetch"), "done");
        off.Says.ShouldBe("called off");
        (await Outside.ParcelAsync(story, p => p.Label is null)).Stand.ShouldBe($"{carrier.Name} does not fetch it: it was called off");
        (await CarrierSeesAsync(carrier, booked.Label!)).ShouldBeTrue();
        await story.StartsAnewAsync();
        var kept = await story.LastAsync<DriveKept>();
        await story.DoesAsync("lioth", new EntryCorrected(kept.Id, "They took another one."));
        (await story.ViewAsync()).Next.Say.ShouldBe($"Send {old} back otherwise. {carrier.Name} does not fetch it: it was called off.");
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        (await Outside.ParcelAsync(story, p => p.Label is not null)).Label.ShouldNotBe(booked.Label);
    }

    [Theory]
    [InlineData("Slow Answer Line", true)]
    [InlineData("Other Way Line", false)]
    public async Task Who_is_asked_and_not_needed_any_more_does_not_come_whether_they_had_answered_or_not(string name, bool answersLate)
    {
        await using var carrier = await Outside.CarrierAsync(firm, name);
        var (story, old) = await GoesBackAsync(Stores);
        if (answersLate)
            await carrier.HandAsync("behave/down");
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        if (!answersLate)
            await Outside.ParcelAsync(story, p => p.Label is not null);
        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight", "GF 12")); // another van was there first
        await carrier.HandAsync("behave/well");
        // Never asked, or asked in that very moment and called off again: nobody drives for nothing.
        await Outside.ComesAsync(() => FirstWaitingAsync(story), waiting => waiting is null);
        using var seen = JsonDocument.Parse(await carrier.LookAsync());
        seen.RootElement.GetProperty("now").EnumerateArray().ShouldAllBe(b => b.GetProperty("calledOff").GetBoolean());
        (await story.ViewAsync()).Returns.Single().Carrier.ShouldBe("Gullwing Freight");
    }

    [Fact]
    public async Task A_box_that_goes_with_them_is_not_called_off_because_it_arrived_without_a_word_of_theirs()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Wordless Line");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;
        await story.DoesAsync("ilka", new ReturnSent(old, carrier.Name, label));

        await story.DoesAsync("sefa", new ReturnArrived(old, old));

        (await (await story.AsAsync("sefa")).OutboxAsync("waiting", null, Ct)).Errands.ShouldNotContain(e => e.Ticket == story.Ticket);
        (await (await story.AsAsync("sefa")).OutboxAsync("done", null, Ct)).Errands.Count(e => e.Ticket == story.Ticket).ShouldBe(1);
    }

    private static async Task<ErrandView?> FirstWaitingAsync(Story story) =>
        (await (await story.AsAsync("sefa")).OutboxAsync("waiting", null, Ct)).Errands.FirstOrDefault(e => e.Ticket == story.Ticket);

    private static async Task<bool> CarrierSeesAsync(Outside carrier, string label)
    {
        using var seen = JsonDocument.Parse(await carrier.LookAsync());
        return seen
            .RootElement.GetProperty("now")
            .EnumerateArray()
            .Single(b => b.GetProperty("label").GetString() == label)
            .GetProperty("calledOff")
            .GetBoolean();
    }

    [Fact]
    public async Task All_drives_for_one_place_go_in_one_box_and_one_for_another_place_does_not()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Two Box Line");
        var (story, old) = await GoesBackAsync(Stores, firstPartWasDead: true);
        var spare = story.Parts[0];
        await story.DoesAsync("ilka", new ReturnOpened(spare, ReturnReason.DeadOnArrival, Stores));
        var offered = (await story.ViewAsync()).Moves.Select(m => m.Body).OfType<CarrierAsked>().Single();
        offered.Serials.ShouldBe([old, spare], ignoreOrder: true);

        await story.DoesAsync("ilka", offered with { Carrier = carrier.Name });
        var label = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;
        await carrier.HandAsync($"parcel/{label}/collected");
        await Outside.ParcelAsync(story, p => p.Said.Count == 1);

        (await story.ViewAsync()).Returns.ShouldAllBe(r => r.Tracking == label);
        (await story.RefusedAsync("ilka", new CarrierAsked([old], carrier.Name))).Sentence.ShouldBe(
            $"{old} is with {carrier.Name} already."
        );
        var (other, elsewhere) = await GoesBackAsync(Maker, firstPartWasDead: true);
        var third = other.Parts[0];
        await other.DoesAsync("ilka", new ReturnOpened(third, ReturnReason.DeadOnArrival, Stores));
        (await other.RefusedAsync("ilka", new CarrierAsked([elsewhere, third], carrier.Name))).Sentence.ShouldStartWith(
            "One box goes to one place"
        );
        (await other.RefusedAsync("ilka", new CarrierAsked([], carrier.Name))).Sentence.ShouldContain($"{elsewhere}, {third}");
    }

    [Fact]
    public async Task Who_refuses_says_why_and_the_drive_goes_otherwise()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Choosy Couriers");
        await carrier.HandAsync("behave/refuses");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));

        await Outside.ParcelAsync(story, p => p.Stand == $"{carrier.Name} does not fetch it: We do not serve this address.");

        (await story.ViewAsync()).Next.Say.ShouldStartWith($"Send {old} back otherwise. ");
        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.Name.ShouldBe("Gullwing Freight");
    }

    [Fact]
    public async Task What_is_lost_or_damaged_is_for_somebody_to_settle_and_a_clock_that_is_ahead_moves_nothing_into_the_future()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Lossy Lines");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;

        await carrier.HandAsync($"parcel/{label}/collected?at=2011-01-01T00:00:00Z"); // their clock stands still
        await Outside.ParcelAsync(story, p => p.Said.Count == 1);
        (await story.ViewAsync()).Returns.Single().SentAt.ShouldNotBeNull();
        await carrier.HandAsync($"parcel/{label}/damaged?says=Fell off the belt.&at=2071-01-01T00:00:00Z");
        await Outside.ParcelAsync(story, p => p.Said.Count == 2);
        await carrier.HandAsync($"parcel/{label}/lost");
        var parcel = await Outside.ParcelAsync(story, p => p.Said.Count == 3);

        parcel.Said.ShouldAllBe(s => s.At <= DateTimeOffset.UtcNow);
        var open = (await story.ViewAsync()).Discrepancies.Where(d => d.IsOpen).Select(d => d.Sentence).ToList();
        open.Count(s => s.StartsWith($"{carrier.Name} has damaged {label} with {old}. They say: Fell off the belt.")).ShouldBe(1);
        open.Count(s => s.StartsWith($"{carrier.Name} has lost {label} with {old}.")).ShouldBe(1);
        await story.DoesAsync("lioth", new PartLost(old, "The carrier has no trace of it", "The trust's scans"));
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Lost);
    }

    [Fact]
    public async Task Nobody_but_the_carrier_tells_what_became_of_its_parcels_and_nobody_words_its_answers()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Signed Freight");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;

        (await TellAsync(carrier.Name, Event("e1", label, ParcelStep.Collected), "another-secret-of-nobody")).Status.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        (await TellAsync("Nobody At All", Event("e1", label, ParcelStep.Collected), RunningStandIn.PartnersSecret)).Status.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        (await TellAsync(carrier.Name, Event("e1", "PC999", ParcelStep.Collected), RunningStandIn.PartnersSecret)).Sentence.ShouldContain(
            $"{carrier.Name} has no parcel PC999 of ours."
        );
        (
            await TellAsync(
                carrier.Name,
                "{\"events\":[{\"id\":\"e1\",\"label\":\"x\",\"step\":\"eaten\",\"at\":\"2026-01-01T00:00:00Z\"}]}"u8.ToArray(),
                RunningStandIn.PartnersSecret
            )
        ).Sentence.ShouldContain("accepted there: collected, on-the-way, held, delivered, damaged, lost, comes-back");
        (await story.ViewAsync()).Parcels.Single().Said.ShouldBeEmpty();
        foreach (var _ in Enumerable.Range(0, 3))
            (await TellAsync(carrier.Name, Event("e1", label, ParcelStep.Collected), RunningStandIn.PartnersSecret)).Status.ShouldBe(
                HttpStatusCode.NoContent
            );
        (await story.ViewAsync()).Parcels.Single().Said.Count.ShouldBe(1);

        (await story.RefusedAsync("lioth", new CarrierAnswered(Guid.CreateVersion7(), carrier.Name, "PC1"))).Status.ShouldBe(403);
        (
            await story.RefusedAsync("lioth", new ParcelTracked(carrier.Name, label, "e9", ParcelStep.Lost, DateTimeOffset.UtcNow))
        ).Status.ShouldBe(403);
    }

    [Fact]
    public async Task A_box_that_comes_back_is_sent_anew_and_what_they_do_with_the_old_one_brings_nothing_to_its_maker()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Boomerang Boxes");
        var (story, old) = await GoesBackAsync(Maker);
        story.Waits(TimeSpan.FromDays(3)); // from now on it is now: what the carrier says is of now
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var first = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;
        await carrier.HandAsync($"parcel/{first}/collected");
        await carrier.HandAsync($"parcel/{first}/comes-back?says=The street is closed");
        await Outside.ParcelAsync(story, p => p.Said.Count == 2);

        (await story.ViewAsync()).Next.Say.ShouldStartWith("Settle: Boomerang Boxes brings ");
        foreach (var open in (await story.ViewAsync()).Discrepancies.Where(d => d.IsOpen))
            await story.DoesAsync("lioth", new DiscrepancySettled(open.Id, "It is at the porter's again"));
        (await story.ViewAsync()).Next.Say.ShouldStartWith($"Send {old} anew. {carrier.Name} {first}: comes back");
        await story.StartsAnewAsync();
        (
            await TellAsync(carrier.Name, Event("at-the-porters", first, ParcelStep.Delivered), RunningStandIn.PartnersSecret)
        ).Status.ShouldBe(HttpStatusCode.NoContent);
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Carrier); // not with its maker

        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var second = (await Outside.ParcelAsync(story, p => p.Label is not null && p.Label != first)).Label!;
        await carrier.HandAsync($"parcel/{second}/delivered");
        await Outside.ParcelAsync(story, p => p.Said.Count == 1);
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.ShouldBe(Maker);
        (await story.ViewAsync()).Returns.Single().Tracking.ShouldBe(second);
    }

    private static byte[] Event(string id, string label, ParcelStep step) =>
        JsonSerializer.SerializeToUtf8Bytes(
            new ParcelEvents([new(id, label, step, DateTimeOffset.UtcNow)]),
            OutsideJson.Default.ParcelEvents
        );

    private async Task<(HttpStatusCode Status, string Sentence)> TellAsync(string carrier, byte[] body, string secret)
    {
        using var http = await firm.HttpAsync("admin");
        http.DefaultRequestHeaders.Authorization = null;
        var stamp = $"{DateTimeOffset.UtcNow.ToUnixTimeSeconds()}";
        using var message = new HttpRequestMessage(HttpMethod.Post, $"api/partners/{Uri.EscapeDataString(carrier)}/events")
        {
            Content = new ByteArrayContent(body),
        };
        message.Headers.Add("webhook-id", "m1");
        message.Headers.Add("webhook-timestamp", stamp);
        message.Headers.Add("webhook-signature", SignedEvents.Sign("m1", stamp, body, secret));
        using var answer = await http.SendAsync(message, Ct);
        return (answer.StatusCode, await answer.Content.ReadAsStringAsync(Ct));
    }
}
