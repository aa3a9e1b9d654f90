using System.Net;
using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.People;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>How long pictures are kept: as agreed with the customer, or until a lead says that one may not be.</summary>
public sealed class PicturesKeptTests(PicturesKeptTests.WithClock running) : IClassFixture<PicturesKeptTests.WithClock>
{
    private static readonly byte[] Png = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII="
    );

    private readonly RunningService _service = running.Service;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<(long Ticket, Guid Photo)> PictureAsync(string asset, string bay, DateTimeOffset? at = null)
    {
        var ilka = await _service.SignInAsync("ilka");
        var (ticket, photo) = (
            (await ilka.ReportAsync(new FaultAsk(asset, "Amber lamp", Bay: bay, At: at), Ct)).Ticket,
            Guid.CreateVersion7()
        );
        await TakeAsync(ticket, photo);
        return (ticket, photo);
    }

    private async Task TakeAsync(long ticket, Guid photo) =>
        await (await _service.SignInAsync("ilka")).KeepPhotoAsync(ticket, photo, new MemoryStream(Png), null, "The label", Ct);

    private async Task<(HttpStatusCode Status, string? Says)> LookAsync(long ticket, Guid photo)
    {
        using var http = await _service.HttpAsync("ilka");
        using var answer = await http.GetAsync($"api/tickets/{ticket}/photos/{photo}", Ct);
        return answer.IsSuccessStatusCode
            ? (answer.StatusCode, null)
            : (
                answer.StatusCode,
                JsonDocument.Parse(await answer.Content.ReadAsStringAsync(Ct)).RootElement.GetProperty("detail").GetString()
            );
    }

    private static async Task<ApiProblem> RefusedAsync(NailcrowClient by, long ticket, Guid photo, string because = "A face is on it.") =>
        await Should.ThrowAsync<ApiProblem>(() => by.WriteAsync(ticket, new PictureRemoved(photo, because), Ct));

    [Fact]
    public async Task A_lead_lets_go_of_a_picture_and_everybody_is_told_who_did_and_why_instead_of_seeing_it()
    {
        var (ticket, photo) = await PictureAsync("FSC-0203", "1");
        var (ilka, lioth, admin) = (
            await _service.SignInAsync("ilka"),
            await _service.SignInAsync("lioth"),
            await _service.SignInAsync("admin")
        );

        (await RefusedAsync(ilka, ticket, photo)).ShouldSatisfyAllConditions(
            no => no.Status.ShouldBe(HttpStatusCode.Forbidden),
            no => no.Message.ShouldContain("it takes the role lead")
        );
        (await RefusedAsync(admin, ticket, photo)).Status.ShouldBe(HttpStatusCode.Forbidden);
        await lioth.WriteAsync(ticket, new PictureRemoved(photo, "A face is on it."), Ct);

        var (status, says) = await LookAsync(ticket, photo);
        status.ShouldBe(HttpStatusCode.Gone);
        says.ShouldNotBeNull().ShouldStartWith("It is kept no more: lioth removed it on ");
        says.ShouldEndWith("(A face is on it).");
        (await ilka.TicketAsync(ticket, Ct)).Photos.Single().Removed.ShouldNotBeNull().By.ShouldBe("lioth");
        (await ilka.JournalAsync(ticket, 0, Ct)).Told.ShouldNotBeNull()[^1].ShouldBe("A picture is kept no more: A face is on it.");
        await TakeAsync(ticket, photo); // a telephone that was out of reach sends it once more
        (await LookAsync(ticket, photo)).Status.ShouldBe(HttpStatusCode.Gone);
        (await admin.VerifyAsync(Ct)).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task It_is_offered_at_the_entry_to_a_lead_once_and_also_where_the_entry_was_said_to_be_not_so()
    {
        var (ticket, photo) = await PictureAsync("FSC-0203", "2");
        var (ilka, lioth) = (await _service.SignInAsync("ilka"), await _service.SignInAsync("lioth"));
        var entry = (await ilka.JournalAsync(ticket, 0, Ct)).Entries.Single(e => e.Body is PhotoTaken);

        (await OfferedAsync(ilka)).WhyNot.ShouldNotBeNull().ShouldContain("it takes the role lead");
        await ilka.WriteAsync(ticket, new Core.Tickets.Journal.Correcting.EntryCorrected(entry.Id, "The wrong machine"), Ct);
        var offered = await OfferedAsync(lioth);
        offered.WhyNot.ShouldBeNull();
        await lioth.WriteAsync(ticket, ((PictureRemoved)offered.Body!) with { Because = "Of another firm's machine." }, Ct);

        (await OfferedAsync(lioth)).WhyNot.ShouldNotBeNull().ShouldEndWith("(Of another firm's machine).");
        (await LookAsync(ticket, photo)).Status.ShouldBe(HttpStatusCode.Gone);
        (await CorrectAsync()).ShouldContain("What is gone does not come back by words");

        async Task<OfferedMove> OfferedAsync(NailcrowClient by) =>
            (await by.CorrectionsAsync(ticket, entry.Seq, Ct)).Moves.Single(m => m.Move == Move.RemovePicture);

        async Task<string> CorrectAsync()
        {
            var removal = (await lioth.JournalAsync(ticket, 0, Ct)).Entries.Single(e => e.Body is PictureRemoved);
            var no = await Should.ThrowAsync<ApiProblem>(() =>
                lioth.WriteAsync(ticket, new Core.Tickets.Journal.Correcting.EntryCorrected(removal.Id, "It was fine"), Ct)
            );
            return no.Message;
        }
    }

    [Fact]
    public async Task What_was_agreed_goes_after_it_has_stood_for_a_week_of_ended_tickets_of_that_customer_alone()
    {
        var (ended, gone) = await PictureAsync("FSC-0203", "3");
        var (open, stays) = await PictureAsync("FSC-0203", "4");
        var (others, theirs) = await PictureAsync("FSC-0107", "1");
        var dorrik = await _service.SignInAsync("dorrik");
        foreach (var ticket in new[] { ended, others })
            await dorrik.WriteAsync(ticket, new TicketCancelled("A test of the lamp."), Ct);
        var name = (await dorrik.TicketAsync(ended, Ct)).Report!.Customer;
        (await dorrik.TicketAsync(others, Ct)).Report!.Customer.ShouldNotBe(name);
        await _service.PassesAsync(TimeSpan.FromDays(32));
        dorrik = await _service.SignInAsync("dorrik");
        var yearsAgo = (await _service.PassesAsync(TimeSpan.Zero)).AddYears(-2);
        var (said, kept) = await PictureAsync("FSC-0203", "5", yearsAgo);
        await dorrik.WriteAsync(said, new TicketCancelled("It ended long ago."), Ct, yearsAgo.AddHours(1));

        var known = await dorrik.CustomerAsync(name, Ct);
        known.PicturesGoFrom.ShouldBeNull();
        var agreed = await dorrik.PutCustomerAsync(known.Customer with { PicturesKeptMonths = 1 }, known.Version, Ct);
        var now = await _service.PassesAsync(TimeSpan.Zero);
        agreed.PicturesGoFrom.ShouldNotBeNull().ShouldBeInRange(now + TimeSpan.FromDays(6.9), now + TimeSpan.FromDays(7.1));
        await SeenAsync();
        (await LookAsync(ended, gone)).Status.ShouldBe(HttpStatusCode.OK); // it has not stood for a week

        await _service.PassesAsync(TimeSpan.FromDays(7.5));
        await Soon.IsAsync(async () => (await LookAsync(ended, gone)).Status == HttpStatusCode.Gone, Ct);

        (await LookAsync(ended, gone)).Says.ShouldNotBeNull().ShouldContain($"Pictures of {name} are kept for 1 month after a ticket ends");
        (await LookAsync(open, stays)).Status.ShouldBe(HttpStatusCode.OK);
        (await LookAsync(others, theirs)).Status.ShouldBe(HttpStatusCode.OK);
        (await LookAsync(said, kept)).Status.ShouldBe(HttpStatusCode.OK); // what cannot be undone does not go by a time that somebody said
        var admin = await _service.SignInAsync("admin");
        (await admin.TicketAsync(ended, Ct)).Stage.ShouldBe(Stage.Cancelled);
        (await admin.VerifyAsync(Ct)).Troubles.ShouldBeEmpty();

        // Until the service has looked it is a week from whenever one asks; then it is a day that stays.
        Task SeenAsync() => Soon.IsAsync(async () => await FromAsync() == await FromAsync(), Ct);

        async Task<DateTimeOffset?> FromAsync() => (await dorrik.CustomerAsync(name, Ct)).PicturesGoFrom;
    }

    [Theory]
    [InlineData(0)]
    [InlineData(601)]
    public async Task A_time_that_is_none_is_refused_with_what_is_taken(int months)
    {
        var dorrik = await _service.SignInAsync("dorrik");

        (
            await Should.ThrowAsync<ApiProblem>(() =>
                dorrik.PutCustomerAsync(new Customer("Nobody Yet", PicturesKeptMonths: months), null, Ct)
            )
        ).Message.ShouldBe(
            $"Pictures cannot be kept for {months} months after a ticket ends; 1 to 600 are taken, and none where they stay as long as the record."
        );
    }

    public sealed class WithClock : IAsyncLifetime
    {
        private RunningService? _service;

        public RunningService Service => _service ?? throw new InvalidOperationException("Not started yet.");

        public async ValueTask InitializeAsync() =>
            _service = await RunningService.StartPeopledAsync(givenTime: true, further: ["--Nailcrow:PicturesEverySeconds", "0.3"]);

        public ValueTask DisposeAsync() => Service.DisposeAsync();
    }
}
