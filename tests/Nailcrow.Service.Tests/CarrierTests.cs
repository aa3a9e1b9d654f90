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

namespace Nailcrow.Service.Tests;

/// <summary>Carriers that the service asks: what leaves is on record first, is said until it is heard, and is said once.</summary>
[Collection(Stories.Name)]
public sealed class CarrierTests(TheFirm firm)
{
    private static readonly Holder Stores = new(HolderKind.Depot, "Stores");
    private static readonly Holder Maker = new(HolderKind.Maker, "Cindral");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    /// <summary>A swap is done, and the old drive is to go back.</summary>
    private async Task<(Story Story, string Old)> GoesBackAsync(Holder to, bool firstPartWasDead = false)
    {
        var story = await new Story(firm).OnSiteAsync();
        var old = story.Machine.Serial("2");
        if (firstPartWasDead)
        {
            await story.DoesAsync("ilka", new PartGivenUp(story.Parts[0], NoReplacement.DeadOnArrival));
            await story.PartAsync();
        }
        await story.StartAsync();
        await story.FollowAsync();
        await story.DoesAsync(
            "ilka",
            new ReturnOpened(
                old,
                to.Kind == HolderKind.Maker ? ReturnReason.ExchangeUnderWarranty : ReturnReason.BackToStores,
                to,
                to.Kind == HolderKind.Maker ? "RX-1" : null,
                DataAgreedBy: "R. Alder"
            )
        );
        return (story, old);
    }

    private static async Task<ParcelView> ParcelAsync(Story story, Func<ParcelView, bool> isSo) =>
        (await Outside.ComesAsync(() => story.ViewAsync(), v => v.Parcels.Count > 0 && isSo(v.Parcels[^1]))).Parcels[^1];

    private static Task<ErrandView> ErrandAsync(Story story, Func<ErrandView, bool> isSo, string? state = null) =>
        Outside.ComesAsync(
            async () =>
                (await (await story.AsAsync("sefa")).OutboxAsync(state, null, Ct)).Errands.FirstOrDefault(e => e.Ticket == story.Ticket)
                ?? Nothing,
            e => e != Nothing && isSo(e)
        );

    private static readonly ErrandView Nothing = new(Guid.Empty, "", "", 0, default, "", null, 0, null);

    [Fact]
    public async Task A_box_is_booked_and_what_the_carrier_tells_of_it_moves_the_drive_until_stores_has_read_it()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Gullwing Freight", tells: true);
        var (story, old) = await GoesBackAsync(Stores);

        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await ParcelAsync(story, p => p.Label is not null)).Label!;

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
        var label = (await ParcelAsync(story, p => p.Label is not null)).Label!;
        await carrier.HandAsync($"parcel/{label}/on-the-way?place=Harrow depot"); // they forgot to say that they fetched it
        await ParcelAsync(story, p => p.Said.Count == 1);
        (await story.ViewAsync()).Returns.Single().SentAt.ShouldNotBeNull();

        await carrier.HandAsync($"parcel/{label}/delivered");
        var parcel = await ParcelAsync(story, p => p.Said.Count == 2);
        var calls = await carrier.CallsAsync();

        parcel.Stand.ShouldBe($"{carrier.Name} {label}: delivered");
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.ShouldBe(Maker);
        await story.StartsAnewAsync(); // it is not asked again about what has ended, and nothing is told twice
        (await ParcelAsync(story, _ => true)).Said.Count.ShouldBe(2);
        (await carrier.CallsAsync() - calls).ShouldBeLessThan(2);
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
        var label = (await ParcelAsync(story, p => p.Label is not null)).Label!;
        await carrier.HandAsync($"parcel/{label}/collected");
        await ParcelAsync(story, p => p.Said.Count == 1);

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

    [Theory]
    [InlineData("down", "answered 503: We are down for the night.")]
    [InlineData("garbage", "answered what is no answer: <html>")]
    [InlineData("wrong", "answered what is no answer: label is empty.")]
    [InlineData("flood", "was not reached")]
    [InlineData("hangs", "did not answer within 2 s.")]
    public async Task A_carrier_that_is_no_good_today_is_asked_again_until_it_answers_and_then_once(string manner, string says)
    {
        await using var carrier = await Outside.CarrierAsync(firm, $"Carrier {manner}");
        await carrier.HandAsync($"behave/{manner}");
        var (story, old) = await GoesBackAsync(Stores);

        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));

        var errand = await ErrandAsync(story, e => e.Says is not null);
        errand.Says!.ShouldContain(says);
        (await story.ViewAsync()).Next.Say.ShouldBe($"Pack {old}. {carrier.Name} was asked to fetch it, and has not answered yet.");
        await story.StartsAnewAsync();
        await carrier.HandAsync("behave/well");
        await story.AsAsync("sefa");
        await (await story.AsAsync("sefa")).SendAgainAsync(errand.Id, Ct);
        await ParcelAsync(story, p => p.Label is not null);
        (await story.ToldAsync()).Count(t => t.StartsWith($"{carrier.Name} fetches it as ")).ShouldBe(1);
    }

    [Fact]
    public async Task What_could_not_be_said_is_given_up_listed_and_sent_again_by_hand()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Nightline");
        await carrier.HandAsync("behave/down");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));

        var given = await ErrandAsync(story, e => e.State == "given-up");

        (given.Tries, given.NextAt, given.What).ShouldBe((6, null, $"{carrier.Name} is asked to fetch a box"));
        (await (await story.AsAsync("ilka")).OutboxAsync("given-up", null, Ct)).Counts["given-up"].ShouldBeGreaterThan(0);
        await carrier.HandAsync("behave/well");
        await story.StartsAnewAsync(); // a restart alone does not send what was given up
        (await ErrandAsync(story, _ => true)).State.ShouldBe("given-up");
        await (await story.AsAsync("sefa")).SendAgainAsync(given.Id, Ct);
        await ParcelAsync(story, p => p.Label is not null);
        (await ErrandAsync(story, e => e.State == "done", "done")).Says!.ShouldStartWith("booked as ");
        (
            await Should.ThrowAsync<Nailcrow.Client.ApiProblem>(async () =>
                await (await story.AsAsync("sefa")).SendAgainAsync(given.Id, Ct)
            )
        ).Message.ShouldBe("That is done; only what waits or was given up is sent again.");
    }

    [Fact]
    public async Task Who_refuses_says_why_and_the_drive_goes_otherwise()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Choosy Couriers");
        await carrier.HandAsync("behave/refuses");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));

        await ParcelAsync(story, p => p.Stand == $"{carrier.Name} does not fetch it: We do not serve this address.");

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
        var label = (await ParcelAsync(story, p => p.Label is not null)).Label!;

        await carrier.HandAsync($"parcel/{label}/collected?at=2011-01-01T00:00:00Z"); // their clock stands still
        await ParcelAsync(story, p => p.Said.Count == 1);
        (await story.ViewAsync()).Returns.Single().SentAt.ShouldNotBeNull();
        await carrier.HandAsync($"parcel/{label}/damaged?says=Fell off the belt.&at=2071-01-01T00:00:00Z");
        await ParcelAsync(story, p => p.Said.Count == 2);
        await carrier.HandAsync($"parcel/{label}/lost");
        var parcel = await ParcelAsync(story, p => p.Said.Count == 3);

        parcel.Said.ShouldAllBe(s => s.At <= DateTimeOffset.UtcNow);
        var open = (await story.ViewAsync()).Discrepancies.Where(d => d.IsOpen).Select(d => d.Sentence).ToList();
        open.Count(s => s.StartsWith($"{carrier.Name} has damaged {label} with {old}. They say: Fell off the belt.")).ShouldBe(1);
        open.Count(s => s.StartsWith($"{carrier.Name} has lost {label} with {old}.")).ShouldBe(1);
        await story.DoesAsync("lioth", new PartLost(old, "The carrier has no trace of it", "The trust's scans"));
        (await story.ViewAsync()).Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Lost);
    }

    [Fact]
    public async Task What_was_asked_by_mistake_is_called_off_and_what_was_not_said_yet_is_never_said()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Slip and Sons");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        await ParcelAsync(story, p => p.Label is not null);

        var asked = await story.LastAsync<CarrierAsked>();
        await story.DoesAsync("ilka", new EntryCorrected(asked.Id, "It is collected by our own van"));

        (await ErrandAsync(story, e => e.What == $"{carrier.Name} is told not to fetch a box" && e.State == "done", "done")).Says.ShouldBe(
            "called off"
        );
        (await story.ViewAsync()).Parcels.ShouldBeEmpty();
        await carrier.HandAsync("behave/down");
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        await ErrandAsync(story, e => e.Says is not null);
        await story.DoesAsync("ilka", new EntryCorrected((await story.LastAsync<CarrierAsked>()).Id, "By our own van, still"));
        await carrier.HandAsync("behave/well");
        await ErrandAsync(story, e => e.State == "not-wanted", "not-wanted");
        (await story.ViewAsync()).Parcels.ShouldBeEmpty();
    }

    [Fact]
    public async Task Nobody_but_the_carrier_tells_what_became_of_its_parcels_and_nobody_words_its_answers()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Signed Freight");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        var label = (await ParcelAsync(story, p => p.Label is not null)).Label!;

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
    public async Task Only_who_is_known_is_asked_only_an_administrator_says_who_and_what_both_sign_with_lies_nowhere_in_clear()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Known Freight");
        var (story, old) = await GoesBackAsync(Stores);

        (await story.RefusedAsync("ilka", new CarrierAsked([old], "Unknown Freight"))).Sentence.ShouldStartWith(
            "'Unknown Freight' is no carrier that the service can ask; known: "
        );
        var ilka = await story.AsAsync("ilka");
        (
            await Should.ThrowAsync<Nailcrow.Client.ApiProblem>(() =>
                ilka.PutPartnerAsync("X", new(PartnerKind.Carrier, "http://a.example"), Ct)
            )
        ).Status.ShouldBe(HttpStatusCode.Forbidden);
        var admin = await story.AsAsync("admin");
        foreach (
            var (name, ask) in new[]
            {
                ("a/b", "http://a.example"),
                ("A", "ftp://a.example"),
                ("A", "a.example"),
                ("A", "http://me:pw@a.example"),
            }
        )
            (
                await Should.ThrowAsync<Nailcrow.Client.ApiProblem>(() => admin.PutPartnerAsync(name, new(PartnerKind.Carrier, ask), Ct))
            ).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var made = await admin.PutPartnerAsync("Fresh Freight", new(PartnerKind.Carrier, "http://a.example"), Ct);
        made.Secret.ShouldNotBeNull();
        (await admin.PutPartnerAsync("Fresh Freight", new(PartnerKind.Carrier, "http://b.example"), Ct)).Secret.ShouldBeNull();
        await admin.RemovePartnerAsync("Fresh Freight", Ct);
        var kept = Directory
            .EnumerateFiles(firm.Folder, "nailcrow.db*")
            .SelectMany(f => File.Exists(f) ? [Kept(f)] : Array.Empty<string>())
            .ToList();
        kept.ShouldAllBe(text => !text.Contains(RunningStandIn.PartnersSecret) && !text.Contains(made.Secret!));
    }

    [Fact]
    public async Task One_carrier_that_hangs_holds_no_other_up_and_where_a_box_was_is_no_trouble_to_a_ticket_that_is_closed()
    {
        await using var hangs = await Outside.CarrierAsync(firm, "Hanging Haulage");
        await using var well = await Outside.CarrierAsync(firm, "Working Waggons");
        var (stuck, its) = await GoesBackAsync(Stores);
        await stuck.DoesAsync("ilka", new CarrierAsked([its], hangs.Name));
        await ParcelAsync(stuck, p => p.Label is not null);
        await hangs.HandAsync("behave/hangs"); // it is asked for events now, and for another box
        var (other, another) = await GoesBackAsync(Stores);
        await other.DoesAsync("ilka", new CarrierAsked([another], hangs.Name));

        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], well.Name));
        var label = (await ParcelAsync(story, p => p.Label is not null)).Label!;
        await well.HandAsync($"parcel/{label}/on-the-way");
        await ParcelAsync(story, p => p.Said.Count == 1);

        (await other.ViewAsync()).Parcels.Single().Label.ShouldBeNull();
        await story.DoesAsync("sefa", new ReturnArrived(old, old)); // it came, and they have not said so yet
        await story.DoesAsync("ilka", new CustomerSignedOff("R. Alder"));
        await story.DoesAsync("ilka", new TicketClosed());
        await well.HandAsync($"parcel/{label}/delivered");
        await ParcelAsync(story, p => p.Said.Count == 2);
        (await story.ViewAsync()).Discrepancies.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_partner_cannot_be_the_service_itself()
    {
        using var http = await firm.HttpAsync("admin");
        var admin = await firm.AsAsync("admin");
        await admin.PutPartnerAsync("Ourselves", new(PartnerKind.Carrier, http.BaseAddress!.AbsoluteUri), Ct);
        var (story, old) = await GoesBackAsync(Stores);

        await story.DoesAsync("ilka", new CarrierAsked([old], "Ourselves"));

        (await ErrandAsync(story, e => e.Says is not null)).Says!.ShouldContain("is Nailcrow itself");
        await admin.RemovePartnerAsync("Ourselves", Ct);
        (await ErrandAsync(story, e => e.State == "given-up")).Says.ShouldBe(
            "No carrier is called Ourselves any more; an administrator adds it again."
        );
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

    private static string Kept(string file)
    {
        using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        using var read = new StreamReader(stream, Encoding.Latin1);
        return read.ReadToEnd();
    }
}
