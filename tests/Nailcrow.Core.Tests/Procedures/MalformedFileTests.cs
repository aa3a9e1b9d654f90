using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Each file in Malformed/ has one mistake, and beside it, in a .txt of the same name, every problem that has to be told.</summary>
public class MalformedFileTests
{
    private static readonly string Folder = Path.Combine(
        Path.GetDirectoryName(Shipped.Folder)!,
        "tests",
        "Nailcrow.Core.Tests",
        "Procedures",
        "Malformed"
    ); // the folder lies in the repository

    public static TheoryData<string> Files =>
        [.. Directory.EnumerateFiles(Folder, "*.yaml").Select(f => Path.GetFileNameWithoutExtension(f)).Order(StringComparer.Ordinal)];

    [Theory, MemberData(nameof(Files))]
    public void Each_mistake_has_its_sentence_and_its_place(string file) =>
        Problems(File.ReadAllText(Path.Combine(Folder, $"{file}.yaml"))).ShouldBe(File.ReadAllLines(Path.Combine(Folder, $"{file}.txt")));

    [Fact]
    public void Ten_thousand_steps_are_refused_at_the_one_that_is_too_many()
    {
        var steps = string.Concat(Enumerable.Range(1, 10_000).Select(i => $"      - {{ id: s{i}, do: One. }}\n"));

        Problems(Made.Head + steps)[0].ShouldBe("made.yaml:2008:9: This is step 2001; a procedure has at most 2000.");
    }

    [Fact]
    public void Fragments_that_use_each_other_are_refused_with_the_round_they_make()
    {
        var shelf = Shelf.Of([
            new("fragments/a.yaml", "fragment: a\nsteps:\n  - use: b\n"),
            new("fragments/b.yaml", "fragment: b\nsteps:\n  - use: a\n"),
        ]);

        ProcedureReader
            .Read("x.yaml", $"{Made.Head}      - use: a\n", shelf)
            .Problems[0]
            .ToString()
            .ShouldBe("fragments/b.yaml:3:5: Fragment 'a' uses itself: a > b > a.");
    }

    [Fact]
    public void A_file_of_a_million_characters_is_no_instruction_for_a_person() =>
        Problems(new string('#', 1_000_001)).ShouldBe(["made.yaml:1:1: The file has 1000001 characters; a procedure has at most 1000000."]);

    private static string[] Problems(string text) =>
        [.. Shipped.Read("made.yaml", text.ReplaceLineEndings("\n")).Problems.Select(p => p.ToString())];
}
