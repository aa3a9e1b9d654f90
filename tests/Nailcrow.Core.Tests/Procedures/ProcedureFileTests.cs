using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

public class ProcedureFileTests
{
    private static string Problems(string text) => string.Join("\n", ProcedureReader.Read("x.yaml", text.ReplaceLineEndings("\n")).Problems);

    private static string With(string steps) => $"procedure: x\ntitle: X\napplies-to: {{ swap: hot }}\nchapters:\n  - chapter: One\n    steps:\n{steps}";

    [Fact]
    public void The_procedure_that_ships_has_nothing_wrong() => ProcedureReader.Read("front-hot.yaml", Some.ProcedureText).Problems.ShouldBeEmpty();

    [Fact]
    public void A_syntax_error_is_told_with_file_line_and_column() =>
        Problems("procedure: x\ntitle: [unclosed\n").ShouldStartWith("x.yaml:3:1: This is not YAML:");

    [Theory]
    [InlineData("      - id: a\n        wiggle: it\n",
        "x.yaml:8:9: 'wiggle' is not known here. Accepted: do, look, read, scan, hold, limit, gate, light, call, id, see, hear, if-not, normal-now, records, mark, against, needs, seconds, until, points-at, answers, then, when.\n"
        + "x.yaml:7:9: A step has an 'id' and exactly one of do, look, read, scan, hold, limit, gate, light, call; this one has none.\n"
        + "x.yaml:1:1: A procedure has at least one chapter with one step.")]
    [InlineData("      - id: a\n        do: Pull.\n        then: bb\n      - id: b\n        do: Wait.\n",
        "x.yaml:7:9: Step 'a' leads to 'bb', which is no step here. Did you mean 'b'?")]
    [InlineData("      - id: a\n        do: Pull bay {baz}.\n",
        "x.yaml:7:9: Step 'a' has the blank '{baz}', which nothing fills. Did you mean 'bay'? Accepted: asset, chassis-serial, location, site, array, bay, name, serial, part-serial, wait-after-pull, carrier-screws, latch, carrier, model.")]
    [InlineData("      - id: a\n        scan: The drive.\n        against: drive-out\n        answers: { different: b }\n      - id: b\n        do: Carry on.\n",
        "x.yaml:7:9: A different serial at 'a' leads to 'b', which does not put the drive back; it has to be a step that records put-back.")]
    [InlineData("      - id: a\n        gate: All well.\n",
        "x.yaml:7:9: Gate 'a' says nothing it needs; add 'needs:' with one of part-in-hand, backup-asked, snapshot-before, not-rebuilding, pull-not-fatal, chassis-established, bay-established, as-before, new-drive-seen, light-off, rebuild-seen, array-whole, snapshot-after.")]
    [InlineData("      - id: a\n        hold: Wait.\n        seconds: soon\n", "x.yaml:9:9: 'soon' is not a length; give whole seconds or one of wait-after-pull.")]
    [InlineData("      - id: a\n        do: One.\n      - id: a\n        do: Two.\n", "x.yaml:9:9: Step 'a' stands on line 7 already; an id is used once.")]
    [InlineData("      - id: a\n        do: One.\n        when: { swop: hot }\n", "x.yaml:9:17: 'swop' is not a model property. Did you mean 'swap'? Accepted: loading, swap, rebuild-start, release, carrier-screws.")]
    public void What_is_wrong_is_told_where_it_stands_with_what_would_be_accepted(string steps, string expected) => Problems(With(steps)).ShouldBe(expected);

    [Theory]
    [InlineData(0, true, RebuildStart.ByHand, "carrier-no-screws", "start", "release")]
    [InlineData(4, false, RebuildStart.ByHand, "carrier", "start", null)]
    [InlineData(4, true, RebuildStart.ByItself, "carrier", null, "release")]
    public void A_sheet_holds_only_the_steps_of_its_model(int screws, bool release, RebuildStart start, string carrier, string? byHand, string? released)
    {
        var model = Some.Model with { CarrierScrews = screws, ReleaseBeforePull = release, RebuildStart = start };

        var ids = Compiled(model).Steps.Select(s => s.Id).ToList();

        ids.Where(i => i.StartsWith("carrier", StringComparison.Ordinal)).ShouldBe([carrier]);
        ids.Contains("start").ShouldBe(byHand is not null);
        ids.Contains("release").ShouldBe(released is not null);
    }

    [Fact]
    public void Every_answer_of_a_sheet_leads_to_a_step_that_is_on_it_or_to_the_end()
    {
        var sheet = Compiled(Some.Model with { RebuildStart = RebuildStart.ByItself });

        sheet.Steps.SelectMany(s => s.Answers).Where(a => a.Next is not null && sheet.Step(a.Next) is null).ShouldBeEmpty();
        sheet.Steps.Where(s => s.Say.Contains('{')).ShouldBeEmpty();
    }

    [Fact]
    public void A_procedure_is_not_compiled_for_a_machine_it_is_not_written_for()
    {
        var facts = Facts(Some.Model with { Swap = SwapPower.Off });

        SheetCompiler.Compile(Some.Procedure(), facts, Guid.Empty).ShouldBe(new Parsed<RunSheet>.Refused("Procedure 'front-hot' is for swap hot; Brackmere B12 is off."));
    }

    private static RunSheet Compiled(ApplianceModel model) => ((Parsed<RunSheet>.Ok)SheetCompiler.Compile(Some.Procedure(), Facts(model), Guid.Empty)).Value;

    private static SheetFacts Facts(ApplianceModel model) => new(model, "FSC-1", Some.Chassis, "Corrin", "Hall", "vault", Some.Snapshot().Bays[1], Some.New);
}
