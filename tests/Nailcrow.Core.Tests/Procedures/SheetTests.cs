using System.Text.RegularExpressions;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Learning;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Language;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests.Procedures;

public class SheetTests
{
    private static RunSheet Sheet(string name, ApplianceModel model, int drives = 1) =>
        SheetCompiler
            .Compile(Shipped.Named(name), SampleFacts.For(Shipped.Named(name), model, drives), Guid.Empty)
            .Is(out var sheet, out var reason)
            ? sheet
            : throw new InvalidDataException(reason);

    [Theory]
    [InlineData(0, true, RebuildStart.ByHand, "it clips on", "start", "release")]
    [InlineData(4, false, RebuildStart.ByHand, "4 screws", "start", null)]
    [InlineData(1, true, RebuildStart.ByItself, "1 screw", null, "release")]
    public void A_sheet_holds_only_the_steps_of_its_model(
        int screws,
        bool release,
        RebuildStart start,
        string carrier,
        string? byHand,
        string? released
    )
    {
        var sheet = Sheet("front-hot", Some.Model with { CarrierScrews = screws, ReleaseBeforePull = release, RebuildStart = start });
        var ids = sheet.Steps.Select(s => s.Id).ToList();

        sheet.Step("carrier")!.Say.ShouldStartWith($"Move the carrier to the new drive: {carrier}."); // it is on every sheet of a machine with bays
        ids.Contains("start").ShouldBe(byHand is not null);
        ids.Contains("release").ShouldBe(released is not null);
    }

    public static TheoryData<string> All => [.. Shipped.Names];

    [Theory, MemberData(nameof(All))]
    public void Every_answer_of_a_sheet_leads_to_a_step_that_is_on_it_and_no_blank_is_left(string name)
    {
        foreach (var model in SampleModels.For(Shipped.Named(name), 8))
        {
            var sheet = Sheet(name, model, name is "several" or "growth" ? 3 : 1);

            sheet
                .Steps.SelectMany(s => s.Answers.Select(a => a.Next).Append(s.Else).Append(s.Until))
                .Where(n => n is not (null or StepAnswer.Back or StepAnswer.HandOver) && sheet.Step(n) is null)
                .ShouldBeEmpty();
            sheet.Steps.Where(s => s.Say.Contains('{') || s.See?.Contains('{') == true).ShouldBeEmpty();
            sheet
                .Steps.SelectMany(s => AskedIn(s.When))
                .Where(asked => sheet.Step(asked) is null)
                .ShouldBeEmpty("a condition asks for the answer of a step that is not on the sheet");
        }
    }

    private static IEnumerable<string> AskedIn(string? when) =>
        // "last" is one of the drives
        Regex
            .Matches(when ?? "", @"answer\.([a-z0-9.-]+)")
            .Select(m => m.Groups[1].Value.Replace(".last", ".1", StringComparison.Ordinal));

    [Fact]
    public void A_loop_is_laid_out_drive_by_drive_and_each_step_names_its_own()
    {
        var sheet = Sheet("several", Some.Model, drives: 3);

        sheet
            .Steps.Where(s => s.Id.StartsWith("which", StringComparison.Ordinal))
            .Select(s => s.Say)
            .ShouldBe([
                "Drive 1 of 3. It is OLD0001X in bay 1. Leave all others alone.",
                "Drive 2 of 3. It is OLD0002X in bay 2. Leave all others alone.",
                "Drive 3 of 3. It is OLD0003X in bay 3. Leave all others alone.",
            ]);
        sheet.Step("joined.1")!.Leading("done")!.Next.ShouldBe("which.2"); // three drives make it so
        sheet.Step("joined.3")!.Leading("done")!.Next.ShouldBe("whole");
        sheet.Step("put-back.2")!.When.ShouldBe("answer.serial-out.2 is different and answer.no-mark-left.2 is not refused");
    }

    [Fact]
    public void A_procedure_is_not_compiled_for_a_machine_it_is_not_written_for() =>
        SheetCompiler
            .Compile(
                Shipped.Named("front-hot"),
                SampleFacts.For(Shipped.Named("front-hot"), Some.Model with { Swap = SwapPower.Off }),
                Guid.Empty
            )
            .ShouldBe(
                new Parsed<RunSheet>.Refused(
                    "Procedure 'front-hot' is for model.loading is front and model.swap is hot and ticket.job is fault "
                        + "and ticket.drives is 1; here model.loading is front, model.swap is off, ticket.job is fault, "
                        + "ticket.drives is 1."
                )
            );

    [Fact]
    public void Where_no_swap_helps_nothing_else_applies_and_a_spare_that_stepped_in_decides_what_the_end_is()
    {
        var all = Shipped.Names.Select(Shipped.Named).ToList();
        var facts = SampleFacts.For(Shipped.Named("front-hot"), Some.Model);

        Choosing.For(all, facts)[0].Id.ShouldBe("front-hot");
        Choosing.For(all, facts with { Ticket = facts.Ticket with { SpareTookOver = true } })[0].Id.ShouldBe("spare-stepped-in");
        Choosing.For(all, facts with { Ticket = facts.Ticket with { Help = SwapHelp.TooManyLost } })[0].Id.ShouldBe("too-many-lost");
    }

    [Theory, MemberData(nameof(All))]
    public void Answered_by_chance_a_procedure_comes_to_an_end(string name)
    {
        var chance = new Random(7);
        var sheets = SampleModels.For(Shipped.Named(name), 6).Select(m => Sheet(name, m, name == "several" ? 2 : 1)).ToList();
        for (var runs = 0; runs < 30; runs++)
        {
            var run = new DryRun(sheets[runs % sheets.Count]);
            while (run.Current is not null && run.Visits.Count < 5000)
                run.Answer(run.Typed(run.Choices[chance.Next(run.Choices.Count)]));
            run.Current.ShouldBeNull($"{name} stands at {run.Current?.Id} after {run.Visits.Count} answers");
        }
    }

    [Fact]
    public void What_differs_between_two_versions_is_told_step_by_step()
    {
        var before = Made.Read($"{Made.Head}      - id: a\n        do: One.\n      - id: b\n        do: Two.\n{Made.Tail}");
        var after = Made.Read($"{Made.Head}      - id: a\n        do: One, gently.\n      - id: c\n        do: Three.\n{Made.Tail}");

        VersionComparison
            .Between(before, after)
            .ShouldBe([
                new("a", "changed", "do: One.", "do: One, gently."),
                new("c", "added", null, "do: Three."),
                new("b", "removed", "do: Two.", null),
            ]);
    }

    [Theory, InlineData(4, true, false), InlineData(5, false, true)]
    public void Where_people_get_stuck_is_told_from_five_runs_on(int runs, bool tooEarly, bool stuck)
    {
        var visits = Enumerable.Range(1, runs).SelectMany(t => new[] { Visit(t, 0, "no", 30), Visit(t, 1, "yes", 60) });

        var timing = StepTiming.Of(visits).Single();

        (timing.TooEarlyToTell, timing.PeopleGetStuck, timing.Median, timing.Again).ShouldBe(
            (tooEarly, stuck, TimeSpan.FromSeconds(30), 0.5)
        );
    }

    [Fact]
    public void The_published_schema_is_what_the_reader_accepts() =>
        File.ReadAllText(Path.Combine(Shipped.Folder, "..", "docs", "procedure.schema.json"))
            .ReplaceLineEndings("\n")
            .ShouldBe(ProcedureSchema.Text().ReplaceLineEndings("\n"));

    private static StepVisit Visit(long ticket, int nth, string branch, int seconds) =>
        new(ticket, nth, "p", "v", "a", TimeSpan.FromSeconds(seconds), branch, false, Some.Noon);
}
