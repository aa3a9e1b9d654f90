using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tests.Procedures;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests.Swaps;

/// <summary>A cover that may be off for minutes only.</summary>
public class LimitTests
{
    private static Played WithCover(int seconds)
    {
        var text =
            "procedure: cover\ntitle: Cover\ncomes-back: unchanged\napplies-to: always\nchapters:\n  - chapter: "
            + $"One\n    steps:\n      - id: open\n        limit: Take the cover off.\n        seconds: {seconds}\n  "
            + "      until: close\n      - id: close\n        do: Put the cover on.\n";
        var procedure = Made.Read(text);
        var played = Played.Reported();
        played.Does(
            new SheetCompiled(
                ((Parsed<RunSheet>.Ok)SheetCompiler.Compile(procedure, SampleFacts.For(procedure, Some.Model), Guid.NewGuid())).Value
            )
        );
        played.Answers("done");
        return played;
    }

    [Fact]
    public void The_clock_runs_from_the_answer_that_starts_it_until_the_step_that_ends_it()
    {
        var played = WithCover(seconds: 90);

        played.Ticket.Run!.Limits.ShouldBe([new RunningLimit("open", "close", played.Now.AddSeconds(90))]);

        played.Answers("done"); // a minute later
        played.Ticket.Run!.Limits.ShouldBeEmpty();
        played.Ticket.Discrepancies.ShouldBeEmpty();
    }

    [Fact]
    public void A_limit_that_was_not_kept_is_a_discrepancy_with_how_much_it_was_over()
    {
        var played = WithCover(seconds: 30);
        var deadline = played.Ticket.Run!.Limits[0].Deadline;

        played.Answers("done"); // a minute after the cover came off

        played
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe([$"'close' was to be done by {deadline.UtcDateTime:HH:mm:ss} UTC and was done 30 s later."]);
    }
}
