using Nailcrow.Core.Reports;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tests;

/// <summary>The service report leaves nothing out that somebody overruled, settled or got wrong.</summary>
public class ServiceReportTests
{
    [Fact]
    public void An_overruled_warning_stands_in_the_report_with_the_sentence_the_reason_and_the_name()
    {
        var played = Played.At("not-rebuilding");
        played.Does(new StepOverruled(played.Ticket.Sheet!.Id, "not-rebuilding", "The rebuild is of the other array."), Played.Lioth); // At has made the sheet

        var part = ServiceReport.Of(played.Record).Parts.Single(p => p.Name == "Warnings that were overruled");

        part.Lines.ShouldBe([
            new ReportLine(played.Now, "lioth", "vault is not rebuilding now. Overruled: The rebuild is of the other array."),
        ]);
    }

    [Fact]
    public void A_swap_is_told_in_its_order_and_says_that_it_is_not_over()
    {
        var report = ServiceReport.Of(Played.At("end").Record);

        report.Title.ShouldBe("Service report so far: the ticket is returning");
        report
            .Parts.Single(p => p.Name == "What was done")
            .Lines.Select(l => l.Says)
            .ShouldBe([
                "Hot swap in a front-loading appliance (front-hot " + Some.Procedure().Version + ") was begun.",
                $"{Some.Bad} came out of bay 2.",
                $"{Some.New} went into bay 2.",
                "The rebuild was started by hand.",
            ]);
        report.Parts.ShouldNotContain(p => p.Name == "Warnings that were overruled");
    }

    [Fact]
    public void A_wrong_drive_a_call_and_its_answer_are_told()
    {
        var played = Played.At("serial-out");
        played.Answers("P8GOOD0003");
        played.Answers("done");
        played.Does(new HelpCalled("The lamp of bay 3 was on as well."));
        played.Does(new HelpAnswered(true, "Go by the label."), Played.Lioth);

        var says = ServiceReport
            .Of(played.Record)
            .Parts.Single(p => p.Name == "What was not as it should be")
            .Lines.Select(l => l.Says)
            .ToList();

        says.ShouldContain("Another drive, P8GOOD0003, was pulled from bay 2 and went straight back.");
        says.ShouldContain("Called for help: The lamp of bay 3 was on as well.");
        says.ShouldContain("Go on: Go by the label.");
    }
}
