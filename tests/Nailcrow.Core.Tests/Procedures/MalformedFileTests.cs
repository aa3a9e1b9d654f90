using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

public class MalformedFileTests
{
    private static IReadOnlyList<string> Problems(string text) => [.. ProcedureReader.Read("x.yaml", text.ReplaceLineEndings("\n")).Problems.Select(p => p.ToString())];

    [Theory]
    [InlineData("", "x.yaml:1:1: A procedure file holds one mapping with the keys procedure, title, applies-to and chapters.")]
    [InlineData("- a\n- b\n", "x.yaml:1:1: A procedure file holds one mapping with the keys procedure, title, applies-to and chapters.")]
    [InlineData("procedure: x\ntitle: X\nchapters: many\n", "x.yaml:3:1: 'chapters' is to be a list of mappings.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps: none\n", "x.yaml:5:5: 'steps' is to be a list of mappings.")]
    [InlineData("procedure: x\ntitel: X\n", "x.yaml:2:1: 'titel' is not known here. Did you mean 'title'? Accepted: procedure, title, applies-to, chapters.")]
    [InlineData("title: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        do: Pull.\n", "x.yaml:1:1: A procedure needs 'procedure' (its name) and 'title'.")]
    [InlineData("procedure: x\ntitle: X\napplies-to: hot\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        do: Pull.\n", "x.yaml:3:1: 'applies-to' is to be a mapping of model properties to values.")]
    [InlineData("procedure: x\ntitle: X\napplies-to: { swap: warm }\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        do: Pull.\n", "x.yaml:3:21: 'swap' is never 'warm'; accepted: hot, off.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        do: Pull.\n        look: Out?\n", "x.yaml:6:9: A step has an 'id' and exactly one of do, look, read, scan, hold, limit, gate, light, call; this one has do and look.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        look: Out?\n        answers: { \"yes\": go on }\n", "x.yaml:6:9: Look 'a' asks a question; give at least two answers.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        look: Out?\n        answers: [a, b]\n", "x.yaml:8:9: 'answers' is to be a mapping: answer to the step it leads to, or to 'go on' or 'end'.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        look: Out?\n        answers: { \"\": end, b: end }\n", "x.yaml:8:9: An answer is to be a text and not empty.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        do: Pull.\n        normal-now: a beep\n", "x.yaml:8:9: 'normal-now' is to be a list of texts.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        do: Pull.\n        records: puled\n", "x.yaml:8:9: 'puled' is not a records; accepted: chassis-mark, bay-mark, backup, backup-detail, release, pulled, put-back, inserted, rebuild-started, light-on, light-off. Did you mean 'pulled'?")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        look: Is it?\n        records: bay-mark\n        answers: { \"yes\": end, \"no\": end }\n", "x.yaml:6:9: 'a' records a mark; name it with 'mark:' so that two marks can be told apart.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        limit: Quick.\n        seconds: 60\n", "x.yaml:6:9: Limit 'a' has no 'until:' with the step that ends it.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        limit: Quick.\n        seconds: 60\n        until: b\n", "x.yaml:6:9: Step 'a' leads to 'b', which is no step here. Did you mean 'a'?")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        scan: It.\n        answers: { different: end }\n", "x.yaml:6:9: Scan 'a' is compared to nothing; add 'against:' with one of drive-out, drive-in, chassis.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        scan: It.\n        against: chassis\n", "x.yaml:6:9: Scan 'a' has no answer for 'different'; say where a wrong serial leads.")]
    [InlineData("procedure: x\ntitle: X\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        hold: Wait.\n", "x.yaml:6:9: 'a' has no 'seconds:'.")]
    [InlineData("procedure: x\ntitle: ''\nchapters:\n  - chapter: One\n    steps:\n      - id: a\n        do: Pull.\n", "x.yaml:2:8: 'title' is to be a text and not empty.")]
    public void Each_mistake_has_its_sentence_and_its_place(string text, string expected) => Problems(text).ShouldContain(expected, string.Join("\n", Problems(text)));

    [Theory, InlineData("procedure: x\nprocedure: y\n"), InlineData("a: &x [*x]\n"), InlineData("title: \"unended\n"), InlineData("a: b: c\n"), InlineData("\tprocedure: x\n")]
    public void What_is_no_yaml_is_told_as_such_and_never_thrown(string text) => Problems(text).ShouldNotBeEmpty();

    [Fact]
    public void A_file_that_unfolds_without_end_is_refused_and_not_unfolded()
    {
        var bomb = "a: &a [x, x, x, x, x, x, x, x, x]\n" + string.Concat(Enumerable.Range('b', 10).Select(c => $"{(char)c}: &{(char)c} [{string.Join(", ", Enumerable.Repeat($"*{(char)(c - 1)}", 9))}]\n"));

        Problems(bomb).ShouldNotBeEmpty(); // unfolded, nine to the tenth words would never come to an end
    }

    [Fact]
    public void A_file_of_a_million_characters_is_no_instruction_for_a_person() =>
        Problems(new string('#', 1_000_001)).ShouldBe(["x.yaml:1:1: The file has 1000001 characters; a procedure has at most 1000000."]);
}
