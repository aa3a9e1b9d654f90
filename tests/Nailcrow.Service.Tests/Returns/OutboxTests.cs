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

namespace Nailcrow.Service.Tests.Returns;

/// <summary>What leaves is on record first, is said until it is heard, and is said once; what could not be said stands in a list.</summary>
[Collection(Stories.Name)]
public sealed class OutboxTests(TheFirm firm)
{
    private static readonly Holder Stores = new(HolderKind.Depot, "Stores");
    private static readonly Holder Maker = new(HolderKind.Maker, "Cindral");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<(Story Story, string Old)> GoesBackAsync(Holder to, bool firstPartWasDead = false)
    {
        var story = new Story(firm);
        return (story, await story.GoesBackAsync(to, firstPartWasDead));
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

        var errand = await Outside.ErrandAsync(story, e => e.Says is not null);
        errand.Says!.ShouldContain(says);
        (await story.ViewAsync()).Next.Say.ShouldBe($"Pack {old}. {carrier.Name} was asked to fetch it, and has not answered yet.");
        await story.StartsAnewAsync();
        await carrier.HandAsync("behave/well");
        await story.AsAsync("sefa");
        await (await story.AsAsync("sefa")).SendAgainAsync(errand.Id, Ct);
        await Outside.ParcelAsync(story, p => p.Label is not null);
        (await story.ToldAsync()).Count(t => t.StartsWith($"{carrier.Name} fetches it as ")).ShouldBe(1);
    }

    [Fact]
    public async Task What_could_not_be_said_is_given_up_listed_and_sent_again_by_hand()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Nightline");
        await carrier.HandAsync("behave/down");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));

        var given = await Outside.ErrandAsync(story, e => e.State == "given-up");

        (given.Tries, given.NextAt, given.What).ShouldBe((6, null, $"{carrier.Name} is asked to fetch a box"));
        (await (await story.AsAsync("ilka")).OutboxAsync("given-up", null, Ct)).Counts["given-up"].ShouldBeGreaterThan(0);
        await carrier.HandAsync("behave/well");
        await story.StartsAnewAsync(); // a restart alone does not send what was given up
        (await Outside.ErrandAsync(story, _ => true)).State.ShouldBe("given-up");
        await (await story.AsAsync("sefa")).SendAgainAsync(given.Id, Ct);
        await Outside.ParcelAsync(story, p => p.Label is not null);
        (await Outside.ErrandAsync(story, e => e.State == "done", "done")).Says!.ShouldStartWith("booked as ");
        (
            await Should.ThrowAsync<Nailcrow.Client.ApiProblem>(async () =>
                await (await story.AsAsync("sefa")).SendAgainAsync(given.Id, Ct)
            )
        ).Message.ShouldBe("That is done; only what waits or was given up is sent again.");
    }

    [Fact]
    public async Task What_was_asked_by_mistake_is_called_off_and_what_was_not_said_yet_is_never_said()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Slip and Sons");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        await Outside.ParcelAsync(story, p => p.Label is not null);

        var asked = await story.LastAsync<CarrierAsked>();
        await story.DoesAsync("ilka", new EntryCorrected(asked.Id, "It is collected by our own van"));

        (
            await Outside.ErrandAsync(story, e => e.What == $"{carrier.Name} is told not to fetch a box" && e.State == "done", "done")
        ).Says.ShouldBe("called off");
        (await story.ViewAsync()).Parcels.ShouldBeEmpty();
        await carrier.HandAsync("behave/down");
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        await Outside.ErrandAsync(story, e => e.Says is not null);
        await story.DoesAsync("ilka", new EntryCorrected((await story.LastAsync<CarrierAsked>()).Id, "By our own van, still"));
        // Told in the same breath, and not when it would have been tried again.
        (await (await story.AsAsync("sefa")).OutboxAsync("not-wanted", null, Ct)).Errands.ShouldContain(e => e.Ticket == story.Ticket);
        await carrier.HandAsync("behave/well");
        (await story.ViewAsync()).Parcels.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_a_slip_overtook_is_said_once_the_slip_is_put_right()
    {
        await using var carrier = await Outside.CarrierAsync(firm, "Patient Parcels");
        await carrier.HandAsync("behave/down");
        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], carrier.Name));
        await Outside.ErrandAsync(story, e => e.Says is not null);

        await story.DoesAsync("sefa", new ReturnArrived(old, old));
        (await (await story.AsAsync("sefa")).OutboxAsync("not-wanted", null, Ct)).Errands.ShouldContain(e => e.Ticket == story.Ticket);
        await carrier.HandAsync("behave/well");
        await story.DoesAsync("sefa", new EntryCorrected((await story.LastAsync<ReturnArrived>()).Id, "That was another box."));

        (await Outside.ParcelAsync(story, p => p.Label is not null)).Label.ShouldNotBeNull();
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
        var kept = RunningService.KeptIn(firm.Folder).SelectMany(f => File.Exists(f) ? [Kept(f)] : Array.Empty<string>()).ToList();
        kept.ShouldAllBe(text => !text.Contains(RunningStandIn.PartnersSecret) && !text.Contains(made.Secret!));
    }

    [Fact]
    public async Task One_carrier_that_hangs_holds_no_other_up_and_where_a_box_was_is_no_trouble_to_a_ticket_that_is_closed()
    {
        await using var hangs = await Outside.CarrierAsync(firm, "Hanging Haulage");
        await using var well = await Outside.CarrierAsync(firm, "Working Waggons");
        var (stuck, its) = await GoesBackAsync(Stores);
        await stuck.DoesAsync("ilka", new CarrierAsked([its], hangs.Name));
        await Outside.ParcelAsync(stuck, p => p.Label is not null);
        await hangs.HandAsync("behave/hangs"); // it is asked for events now, and for another box
        var (other, another) = await GoesBackAsync(Stores);
        await other.DoesAsync("ilka", new CarrierAsked([another], hangs.Name));

        var (story, old) = await GoesBackAsync(Stores);
        await story.DoesAsync("ilka", new CarrierAsked([old], well.Name));
        var label = (await Outside.ParcelAsync(story, p => p.Label is not null)).Label!;
        await well.HandAsync($"parcel/{label}/on-the-way");
        await Outside.ParcelAsync(story, p => p.Said.Count == 1);

        (await other.ViewAsync()).Parcels.Single().Label.ShouldBeNull();
        await story.DoesAsync("sefa", new ReturnArrived(old, old)); // it came, and they have not said so yet
        await story.DoesAsync("ilka", new CustomerSignedOff("R. Alder"));
        await story.DoesAsync("ilka", new TicketClosed());
        await well.HandAsync($"parcel/{label}/delivered");
        await Outside.ParcelAsync(story, p => p.Said.Count == 2);
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

        (await Outside.ErrandAsync(story, e => e.Says is not null)).Says!.ShouldContain("is Nailcrow itself");
        await admin.RemovePartnerAsync("Ourselves", Ct);
        (await Outside.ErrandAsync(story, e => e.State == "given-up")).Says.ShouldBe(
            "No carrier is called Ourselves any more; an administrator adds it again."
        );
    }

    private static string Kept(string file)
    {
        using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        using var read = new StreamReader(stream, Encoding.Latin1);
        return read.ReadToEnd();
    }
}
