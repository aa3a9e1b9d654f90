using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tests.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tests.Tickets.Journal;

/// <summary>What comes from outside is bounded: the last that passes, the first that does not.</summary>
public class BoundsTests
{
    private static string Long(int length) => new('x', length);

    [Theory]
    [InlineData(4_000, null)]
    [InlineData(4_001, "text has 4,001 characters; at most 4,000 are taken.")]
    public void A_note_is_a_page_of_writing(int length, string? problem) => Bounds.Problem(new NoteWritten(Long(length))).ShouldBe(problem);

    [Theory]
    [InlineData(200, null)]
    [InlineData(201, "carrier has 201 characters; at most 200 are taken.")]
    public void A_name_is_a_name(int length, string? problem) =>
        Bounds.Problem(new ReturnSent("C8NEWW2286", Long(length))).ShouldBe(problem);

    [Fact]
    public void Where_it_is_in_a_snapshot_is_said() =>
        Bounds
            .Problem(new SnapshotTaken(Some.Snapshot() with { Bays = [.. Some.Snapshot().Bays, new Bay(Long(41), BayRole.Empty)] }))
            .ShouldBe("snapshot.bays[6].label has 41 characters; at most 40 are taken.");

    [Theory]
    [InlineData(10_000_000_000_000_000, null)]
    [InlineData(10_000_000_000_000_002, "bytes is 10,000,000,000,000,002; 0 to 10,000,000,000,000,000 are taken.")]
    [InlineData(-1, "bytes is -1; 0 to 10,000,000,000,000,000 are taken.")]
    public void A_drive_has_so_many_bytes(long bytes, string? problem) =>
        Bounds.Problem(new PartReserved("C8NEWW2286", "C8", bytes, "Stores")).ShouldBe(problem);

    [Theory]
    [InlineData("1999-12-31T23:59:59Z", "since is 1999-12-31T23:59:59+00:00; times from 2000 to 2099 are taken.")]
    [InlineData("2000-01-01T00:00:00Z", null)]
    [InlineData("9999-12-31T23:59:59Z", "since is 9999-12-31T23:59:59+00:00; times from 2000 to 2099 are taken.")]
    public void Times_are_of_this_century(string since, string? problem) =>
        Bounds
            .Problem(
                new FaultReported(
                    "A",
                    "B",
                    "C",
                    "D",
                    "E",
                    "F",
                    JobKind.Fault,
                    "Lamp",
                    Since: DateTimeOffset.Parse(since, System.Globalization.CultureInfo.InvariantCulture)
                )
            )
            .ShouldBe(problem);

    [Theory]
    [InlineData("12", null)] // a name is a name, whatever day it could be read as
    [InlineData("1 May 1999", null)]
    [InlineData(201, "to has 201 characters; at most 200 are taken.")]
    public void Where_a_part_goes_to_is_a_person_and_no_time(object name, string? problem) =>
        Bounds.Problem(new PartIssued(Some.New, name as string ?? Long((int)name))).ShouldBe(problem);

    [Fact]
    public void A_character_that_no_text_has_is_refused_in_these_words() =>
        Bounds.Problem(new NoteWritten("a\0b")).ShouldBe("text has a character U+0000 in it, which no text has; send it without.");

    [Fact]
    public void A_machine_with_two_arrays_of_one_name_is_asked_to_tell_them_apart() =>
        SnapshotProblems
            .In(Some.Snapshot() with { Arrays = [.. Some.Snapshot().Arrays, Some.Snapshot().Arrays[0] with { Level = ArrayLevel.Raid5 }] })
            .ShouldContain("Array VAULT is listed twice; each array has a name of its own in a snapshot.");

    [Theory]
    [InlineData(-121, false)]
    [InlineData(-119, false)]
    [InlineData(119, false)]
    [InlineData(121, true)]
    public void A_decision_is_taken_now_and_not_ahead_of_the_clock(int secondsAhead, bool refused)
    {
        var played = Played.Reported();
        var ask = new Intent(Guid.NewGuid(), played.Now.AddSeconds(secondsAhead), 0, Played.Lioth, new PutOnHold("Snow"));

        (Ruling.On(played.Ticket, ask, played.Now) is Ruling.Unusable).ShouldBe(refused);
    }

    [Theory]
    [InlineData("9999-12-31T23:59:59Z", 0)]
    [InlineData("2026-03-02T12:01:00Z", 3_153_600_000_000)] // a century off
    public void A_fact_from_a_clock_that_is_ahead_counts_at_its_arrival_and_is_questioned(string at, long offset)
    {
        var played = Played.Reported();
        var fact = new Intent(
            Guid.NewGuid(),
            DateTimeOffset.Parse(at, System.Globalization.CultureInfo.InvariantCulture),
            offset,
            Played.Ilka,
            new ArrivedOnSite()
        );

        Ruling.On(played.Ticket, fact, played.Now).ShouldBe(new Ruling.Accepted());
        var record = played.Record.With(played.Record.Next(fact, played.Now));

        record.Ticket.ArrivedAt.ShouldBe(played.Now);
        record.Ticket.Discrepancies.Select(d => d.About).ShouldBe(["clock"]);
    }

    [Fact]
    public void Nothing_is_older_than_the_year_2000() =>
        Ruling
            .On(
                Played.Reported().Ticket,
                new Intent(Guid.NewGuid(), new(1970, 1, 1, 0, 0, 0, TimeSpan.Zero), 0, Played.Ilka, new NoteWritten("x")),
                Some.Noon
            )
            .ShouldBe(
                new Ruling.Unusable("It says it happened at 1970-01-01 00:00 UTC; nothing here is older than 2000. Set the device's clock.")
            );

    [Fact]
    public void Only_the_service_writes_what_only_the_service_can_know()
    {
        var played = Played.WithSheet();
        var forged = new SheetCompiled(played.Ticket.Sheet!); // the sheet was just made
        var byLead = new Intent(Guid.NewGuid(), played.Now, 0, new("lioth", [.. Enum.GetValues<People.Role>()]), forged);

        Ruling
            .On(played.Ticket, byLead with { FromOutside = true }, played.Now)
            .ShouldBeOfType<Ruling.NotAllowed>()
            .Reason.ShouldStartWith("A run sheet is made by the service, from a procedure that is published and proved");
        Ruling
            .On(played.Ticket, byLead with { FromOutside = true, Body = new SerialKnownElsewhere("X", "there") }, played.Now)
            .ShouldBeOfType<Ruling.NotAllowed>();
        Ruling
            .On(played.Ticket, byLead with { FromOutside = true, Body = new PhotoTaken(Guid.NewGuid(), "", "image/png", 1) }, played.Now)
            .ShouldBeOfType<Ruling.NotAllowed>();
    }

    [Fact]
    public void A_ticket_has_five_hundred_pictures_and_no_more_until_one_of_them_goes()
    {
        var played = Played.WithSheet();
        var full = played.Ticket with
        {
            Photos = [.. Enumerable.Range(0, 500).Select(_ => new Photo(Guid.NewGuid(), null, null, played.Now, "ilka"))],
        };
        var one = new PhotoTaken(Guid.NewGuid(), "", "image/png", 1);
        var byEngineer = new People.Actor("ilka", [People.Role.Engineer]);

        Ruling
            .On(full, one, byEngineer, played.Now)
            .ShouldBeOfType<Ruling.Unusable>()
            .Reason.ShouldContain(" has 500 pictures, and no more are kept with one; a lead lets some go first, ");
        Ruling.On(full with { Photos = full.Photos.RemoveAt(0) }, one, byEngineer, played.Now).ShouldBe(new Ruling.Accepted());
        Ruling.On(full, one with { Photo = full.Photos[7].Id }, byEngineer, played.Now).ShouldBe(new Ruling.Accepted()); // put right
        var gone = new Removal(played.Now, "lioth", "A face is on it");
        var oneLess = full with { PicturesRemoved = full.PicturesRemoved.Add(full.Photos[7].Id, gone) };
        Ruling.On(oneLess, one, byEngineer, played.Now).ShouldBe(new Ruling.Accepted());
    }

    [Fact]
    public void The_table_in_the_documents_is_the_one_that_is_held_to()
    {
        var documents = File.ReadAllText(Path.Combine(Shipped.Folder, "..", "docs", "journal.md"));

        foreach (var bound in Bounds.Table)
            documents.ShouldContain(
                $"| {string.Join(", ", bound.Fields).Replace("*", "all others")} | {bound.Kind.ToString().ToLowerInvariant()} | {Told(bound)} | {bound.Why} |"
            );
    }

    private static string Told(Bound bound) =>
        bound.Kind switch
        {
            BoundKind.Characters or BoundKind.Items =>
                $"at most {bound.Most.ToString("#,0", System.Globalization.CultureInfo.InvariantCulture)}",
            BoundKind.Time => $"from {bound.Least} to {bound.Most - 1}",
            _ => $"{bound.Least.ToString("#,0", System.Globalization.CultureInfo.InvariantCulture)} to "
                + $"{bound.Most.ToString("#,0", System.Globalization.CultureInfo.InvariantCulture)}",
        };

    [Fact]
    public void A_groups_count_that_somebody_claims_is_never_a_size()
    {
        var (snapshot, array) = Some.Array(ArrayLevel.Raid50, "mmmmmm", groups: 2, told: true);
        var before = GC.GetAllocatedBytesForCurrentThread();

        Margin.Of(snapshot, array with { Groups = 200_000_000 }).ShouldBe(1); // none of the six is missing
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(100_000);
    }

    [Fact]
    public void The_chances_of_loss_are_numbers_whatever_the_size()
    {
        var (snapshot, array) = Some.Array(ArrayLevel.Raid6, "mmmmmm");
        var chances = LossChances.Of(snapshot, array with { MemberBytes = long.MaxValue }, 1, 0.9999);

        foreach (var chance in new[] { chances!.DrivesFail, chances.Unreadable }) // a redundant array with members has chances
            (double.IsFinite(chance.Low) && double.IsFinite(chance.High)).ShouldBeTrue();
    }

    [Fact]
    public void A_visit_in_another_decade_is_a_slip_of_the_finger()
    {
        var played = Played.Reported();
        played.Does(new EngineerAssigned("ilka"));

        played
            .Refusal(new VisitPlanned(new(2031, 3, 2, 8, 0, 0, TimeSpan.Zero), new(2031, 3, 2, 10, 0, 0, TimeSpan.Zero)))
            .ShouldBe("A visit in 2031 is further off than two years; look at the date.");
    }
}
