using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>Something was recorded that was not so. What is put right stays in the record, and everybody tells what is true.</summary>
[Collection(Stories.Name)]
public sealed class Row06RecordedByMistake(TheFirm firm)
{
    [Fact]
    public async Task A_near_miss_that_was_none_is_none_in_report_and_custody_and_the_run_goes_on_where_it_was()
    {
        var story = await new Story(firm).AtAsync("pull");
        var neighbour = story.Machine.Serial("3");
        await story.AnswersAsync("done");
        await story.AnswersAsync(neighbour); // the label of the drive beside; the right one is in the hand
        await story.FollowAsync("bay-known");
        var stood = await story.StepAsync();
        var back = await story.LastAsync<StepAnswered>(a => a.Step == "put-back");

        await story.DoesAsync("ilka", new EntryCorrected(back.Id, "I read the label of its neighbour; bay 3 was never open."));
        await story.StartsAnewAsync();

        var view = await story.ViewAsync();
        (await story.StepAsync()).ShouldBe(stood);
        view.Swap.NearMisses.ShouldHaveSingleItem().NotSo.ShouldNotBeNull();
        view.Custody.ShouldNotContain(m => m.Serial == neighbour);
        var closed = await story.ClosesAsync();
        closed.Stage.ShouldBe(Stage.Closed);
        var report = await story.ReportSaysAsync();
        report.ShouldNotContain(l => l.Contains("was pulled from bay", StringComparison.Ordinal));
        report.ShouldContain(l =>
            l.StartsWith("What was put right in the record:", StringComparison.Ordinal)
            && l.Contains("was not so", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task An_arrival_at_the_wrong_door_is_taken_out_and_one_at_another_time_is_told_at_that_time()
    {
        var story = await new Story(firm).OnSiteAsync();
        var first = await story.LastAsync<ArrivedOnSite>();
        (await story.RefusedAsync("tamsel", new EntryCorrected(first.Id, "Not her."))).Sentence.ShouldBe(
            "ilka wrote it: ilka or a lead puts it right."
        );
        await story.DoesAsync("lioth", new EntryCorrected(first.Id, "She stood before the wrong building."));
        await story.StartsAnewAsync();
        (await story.ViewAsync()).Stage.ShouldBe(Stage.Planned);

        await story.DoesAsync("ilka", new ArrivedOnSite());
        var second = await story.LastAsync<ArrivedOnSite>();
        var early = second.Happened.AddMinutes(-20);
        await story.DoesAsync("ilka", new EntryCorrected(second.Id, "I was in the cellar, without signal.", null, early));

        await story.StartAsync();
        (await story.ViewAsync()).ArrivedAt.ShouldBe(early);
        (await story.RefusedAsync("ilka", new EntryCorrected(second.Id, "Later.", null, second.RecordedAt.AddHours(1)))).Status.ShouldBe(
            409
        );
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task A_box_whose_serial_was_misread_is_booked_in_once_it_is_read_right()
    {
        var story = await new Story(firm).AtAsync("mark-software");
        await story.FollowAsync();
        var old = (await story.ViewAsync()).Swap.OutSerial!;
        await story.DoesAsync("ilka", new CustomerSignedOff("R. Alder"));
        await story.DoesAsync(
            "ilka",
            new ReturnOpened(old, ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"), DataAgreedBy: "R. Alder")
        );
        await story.DoesAsync("ilka", new ReturnSent(old, "Gullwing Freight"));
        await story.DoesAsync("sefa", new ReturnArrived(old, "BOX4471"));
        (await story.ViewAsync()).Discrepancies.ShouldContain(d => d.IsOpen && d.About == "return");

        var booked = await story.LastAsync<ReturnArrived>();
        var ways = await (await story.AsAsync("sefa")).CorrectionsAsync(story.Ticket, booked.Seq, TestContext.Current.CancellationToken);
        ways.Moves.Select(m => m.Move).ShouldBe([Move.PutRight, Move.OtherTime, Move.NotSo]);
        await story.DoesAsync("sefa", new EntryCorrected(booked.Id, "That is the number of the box.", new ReturnArrived(old, old)));
        await story.StartsAnewAsync();

        var view = await story.ViewAsync();
        view.Discrepancies.ShouldBeEmpty();
        view.Held.Single(h => h.Serial == old).Holder.Kind.ShouldBe(HolderKind.Depot);
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task What_the_sheet_went_by_is_not_turned_round_afterwards_and_a_correction_that_was_wrong_is_taken_back()
    {
        var story = await new Story(firm).AtAsync("pull");
        var label = await story.LastAsync<StepAnswered>(a => a.Step == "backup");
        var (sheet, step, _) = (StepAnswered)label.Body;

        (await story.RefusedAsync("ilka", new EntryCorrected(label.Id, "It was not."))).Sentence.ShouldStartWith(
            "The sheet went on from 'backup'."
        );
        var no = await story.RefusedAsync("ilka", new EntryCorrected(label.Id, "It was not.", new StepAnswered(sheet, step, "no")));
        no.Sentence.ShouldStartWith("With that the sheet would have gone another way; it stands at 'pull'");

        await story.DoesAsync(
            "sefa",
            new EntryCorrected((await story.LastAsync<PartIssued>()).Id, "To somebody else.", new PartIssued(story.Parts[0], "tamsel"))
        );
        (await story.ViewAsync()).Parts.Single().IssuedTo.ShouldBe("tamsel");
        var wrong = await story.LastAsync<EntryCorrected>();
        await story.StartsAnewAsync();
        await story.DoesAsync("sefa", new EntryCorrected(wrong.Id, "It was ilka after all."));

        (await story.ViewAsync()).Parts.Single().IssuedTo.ShouldBe("ilka");
        (await story.ToldAsync()).Count(t => t.Contains("was ilka after all", StringComparison.Ordinal)).ShouldBe(1);
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task After_the_end_it_is_for_a_lead_to_say_what_a_correction_means()
    {
        var story = await new Story(firm).AtAsync("mark-software");
        await story.ClosesAsync();
        var signed = await story.LastAsync<CustomerSignedOff>();

        await story.DoesAsync("ilka", new EntryCorrected(signed.Id, "Another name.", new CustomerSignedOff("S. Birch")));
        await story.StartsAnewAsync();

        var view = await story.ViewAsync();
        (view.SignedOffBy, view.Next.Who, view.Next.Move).ShouldBe(("S. Birch", "lead", Move.Settle));
    }

    [Fact]
    public async Task A_machines_words_and_decisions_are_not_put_right_by_words()
    {
        var story = await new Story(firm).OnSiteAsync();
        var assigned = await story.LastAsync<Core.Tickets.Planning.EngineerAssigned>();
        (await story.RefusedAsync("lioth", new EntryCorrected(assigned.Id, "No."))).Sentence.ShouldStartWith(
            "'engineer-assigned' was decided"
        );
        (await story.RefusedAsync("lioth", new EntryCorrected(Guid.CreateVersion7(), "No."))).Sentence.ShouldContain("has no entry");
        var looked = await story.LastAsync<SnapshotTaken>();
        await story.DoesAsync("ilka", new EntryCorrected(looked.Id, "I stood before the machine beside it."));
        await story.StartsAnewAsync();

        (await story.ViewAsync()).Latest.ShouldBeNull();
        await story.LooksAsync();
        await story.StartAsync();
        (await story.ClosesAsync()).Stage.ShouldBe(Stage.Closed);
    }

    [Fact]
    public async Task A_look_at_the_wrong_machine_takes_with_it_what_was_only_said_because_of_it_and_comes_back_with_it()
    {
        var story = await new Story(firm).OnSiteAsync();
        var beside = story.On(
            (
                await (await story.AsAsync("dorrik")).ReportAsync(
                    new(story.Asset, "It hums", Bay: "6"),
                    TestContext.Current.CancellationToken
                )
            ).Ticket
        );
        var right = await beside.ViewAsync();
        story.Machine.Drops("5"); // of the machine beside it
        await story.LooksAsync();
        var opened = (await story.BesideAsync()).Single(t => t.Bay == "5").Number;
        var looked = await story.LastAsync<SnapshotTaken>();

        await story.DoesAsync("ilka", new EntryCorrected(looked.Id, "I stood before the machine beside it."));
        await story.StartsAnewAsync();
        (await beside.ViewAsync()).Latest!.TakenAt.ShouldBe(right.Latest!.TakenAt);
        (await story.On(opened).ViewAsync()).Stage.ShouldBe(Stage.Cancelled);

        await story.DoesAsync("ilka", new EntryCorrected((await story.LastAsync<EntryCorrected>()).Id, "It was the right one."));
        (await beside.ViewAsync()).Latest!.TakenAt.ShouldBe(looked.Happened);
    }

    [Fact]
    public async Task A_report_is_put_right_in_what_was_said_and_not_in_which_machine_it_is_about()
    {
        var ilka = await firm.AsAsync("ilka");
        var (number, ct) = (
            (await ilka.ReportAsync(new("FSC-0107", "Amber lamp", Bay: "9"), TestContext.Current.CancellationToken)).Ticket,
            TestContext.Current.CancellationToken
        );
        var entry = (await ilka.JournalAsync(number, 0, ct)).Entries[0];
        var report = (Core.Intake.FaultReported)entry.Body;
        report.Promise.ShouldNotBeNull(); // with its holidays: what is compared is what is written

        await ilka.WriteAsync(number, new EntryCorrected(entry.Id, "I counted from the other side.", report with { Bay = "4" }), ct);
        await firm.StartsAnewAsync();
        ilka = await firm.AsAsync("ilka");

        (await ilka.TicketAsync(number, ct)).Report.Bay.ShouldBe("4");
        (await ilka.TicketsAsync(new(Find: "FSC-0107", Ended: false), ct)).Tickets.Single(t => t.Number == number).Bay.ShouldBe("4");
        var elsewhere = new EntryCorrected(entry.Id, "Another one.", report with { Asset = "FSC-0203" });
        var no = await Should.ThrowAsync<Client.ApiProblem>(() => ilka.WriteAsync(number, elsewhere, ct));
        no.Message.ShouldStartWith("Of a report its symptom, bay, serial, job and time are put right here");
    }
}
