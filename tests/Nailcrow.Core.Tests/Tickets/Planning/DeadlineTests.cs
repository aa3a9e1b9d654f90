using Nailcrow.Core.Intake;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tests.Tickets.Planning;

public class DeadlineTests
{
    private static WorkingTime Time(string hours, string zone = "Europe/Oslo", params DateOnly[] holidays) =>
        new Promise(hours, zone, 8, 40, holidays).Time() ?? throw new InvalidOperationException($"{hours} in {zone}");

    private static DateTimeOffset At(string text) => DateTimeOffset.Parse(text, System.Globalization.CultureInfo.InvariantCulture);

    [Theory]
    [InlineData("Mo-Fr 08:00-17:00", "2026-03-02T12:00+01:00", 8, "2026-03-03T11:00+01:00")] // Monday noon: five hours today, three tomorrow
    [InlineData("Mo-Fr 08:00-17:00", "2026-03-06T16:00+01:00", 2, "2026-03-09T09:00+01:00")] // over the weekend
    [InlineData("Mo-Fr 08:00-17:00", "2026-03-07T12:00+01:00", 1, "2026-03-09T09:00+01:00")] // begins when it opens
    [InlineData("Mo-Fr 08:00-12:00,13:00-17:00", "2026-03-02T11:00+01:00", 2, "2026-03-02T14:00+01:00")]
    [InlineData("24/7", "2026-03-28T12:00+01:00", 24, "2026-03-29T13:00+02:00")] // the clocks go forward: 24 real hours
    [InlineData("Mo-Su 00:00-24:00", "2026-10-24T12:00+02:00", 24, "2026-10-25T11:00+01:00")] // and back
    [InlineData("Su 01:00-04:00", "2026-03-29T00:00+01:00", 2, "2026-03-29T04:00+02:00")] // of that night's three hours one is jumped over
    public void A_deadline_is_reckoned_in_the_sites_own_hours(string hours, string from, int length, string due) =>
        Time(hours).After(At(from), TimeSpan.FromHours(length), []).ShouldBe(At(due));

    [Fact]
    public void Holidays_do_not_count() =>
        Time("Mo-Fr 08:00-17:00", holidays: new DateOnly(2026, 12, 25))
            .After(At("2026-12-24T16:00+01:00"), TimeSpan.FromHours(2), [])
            .ShouldBe(At("2026-12-28T09:00+01:00"));

    [Theory]
    [InlineData("Mo-Fr 8-17", "'Mo-Fr 8-17' is no opening time; write 'Mo-Fr 08:00-17:00; Sa 09:00-12:00', 'Su off' or '24/7'.")]
    [InlineData("Mo off", "'Mo off' is never open; write 'Mo-Fr 08:00-17:00' or '24/7'.")]
    public void Hours_that_cannot_be_read_say_what_would_be_accepted(string hours, string sentence) =>
        OpeningHours.Parse(hours).ShouldBe(new Parsed<OpeningHours>.Refused(sentence));

    private static Played Promised()
    {
        var played = new Played();
        played.Does(
            new FaultReported(
                "FSC-1",
                Some.Chassis,
                "B12",
                "Corrin",
                "Corrin",
                "Hall",
                JobKind.Fault,
                "Lamp",
                "2",
                Some.Bad,
                Promise: new("24/7", "UTC", 4, 8)
            )
        );
        return played;
    }

    [Theory, InlineData(WaitsFor.Customer, 2), InlineData(WaitsFor.Access, 2), InlineData(WaitsFor.Part, 0), InlineData(WaitsFor.Other, 0)]
    public void Only_what_the_customer_has_to_do_stops_the_promises_clocks(WaitsFor waits, int hoursLater)
    {
        var played = Promised();
        var received = played.Ticket.ReceivedAt ?? throw new InvalidOperationException("It was received.");
        played.Does(new PutOnHold("Not now", waits), Played.Lioth);
        played.Now += TimeSpan.FromHours(2) - TimeSpan.FromMinutes(1);
        played.Does(new HoldLifted(), Played.Lioth);

        Deadline
            .Of(played.Ticket, played.Now)
            .Select(d => d.At - received)
            .ShouldBe([TimeSpan.FromHours(4 + hoursLater), TimeSpan.FromHours(8 + hoursLater)]);
    }

    [Fact]
    public void Arriving_keeps_the_first_promise_and_the_second_is_next()
    {
        var played = Promised();
        played.Does(new ArrivedOnSite());

        Deadline.Of(played.Ticket, played.Now)[0].MetAt.ShouldBe(played.Ticket.ArrivedAt);
        Deadline.Next(played.Ticket, played.Now)?.Kind.ShouldBe(DeadlineKind.Restore);
    }
}
