using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Whatever somebody takes for a procedure's file, they are told where it cannot be read, and nothing falls over.</summary>
public sealed class UnreadableFileTests
{
    [Theory]
    [InlineData("procedure: x\nsteps: [asset, array:\napplies-to:her]\n")]
    [InlineData("procedure: x\nsteps: {a: b\nc: {\n")]
    [InlineData("\"")]
    [InlineData("- a\nb: c")]
    [InlineData("procedure: x\n\tsteps: y")]
    [InlineData("a: \0b")]
    [InlineData("procedure: x\nchapters:\n  - steps:\n     : go-in\n  - chapter: Swap\n")]
    [InlineData("procedure:\n   : x\nchapters: y\n")]
    public void What_is_no_YAML_is_told_with_its_place(string text)
    {
        var (procedure, problems) = ProcedureReader.Read("made-up.yaml", text, Shelf.Empty);

        procedure.ShouldBeNull();
        problems.ShouldNotBeEmpty();
        problems.ShouldAllBe(p => p.Line >= 1);
    }

    /// <summary>What a slip of the hand makes of a file that ships: characters that YAML means something by, put in, doubled and lost.</summary>
    [Fact]
    public void A_file_that_ships_with_slips_in_it_is_read_or_told_of_and_never_falls_over()
    {
        var chance = new Random(20261129);
        foreach (var file in Directory.EnumerateFiles(Shipped.Folder, "*.yaml").Order(StringComparer.Ordinal))
        foreach (var nth in Enumerable.Range(0, 12))
        {
            var text = WithSlips(File.ReadAllText(file), chance);

            var (procedure, problems) = Should.NotThrow(() => Shipped.Read("made-up.yaml", text), $"{file}, slip {nth}:\n{text}");

            if (procedure is null)
                problems.ShouldNotBeEmpty(text);
            problems.ShouldAllBe(p => p.Line >= 1);
        }
    }

    private static string WithSlips(string text, Random chance)
    {
        const string Meaning = ":-[]{}\"',|>#%\n \t?!&*";
        foreach (var _ in Enumerable.Range(0, 1 + chance.Next(4)))
        {
            var (at, put) = (chance.Next(text.Length - 12), Meaning[chance.Next(Meaning.Length)].ToString());
            text = chance.Next(3) switch
            {
                0 => text.Insert(at, put),
                1 => text.Remove(at, 1 + chance.Next(12)),
                _ => text.Insert(at, text.Substring(at, 1 + chance.Next(8))),
            };
        }
        return text;
    }

    [Fact]
    public void Where_the_reading_itself_stumbles_the_place_is_what_had_been_read()
    {
        var (_, problems) = ProcedureReader.Read("made-up.yaml", "procedure: x\nsteps: [asset, array:\napplies-to:her]\n", Shelf.Empty);

        problems.Single().ToString().ShouldStartWith("made-up.yaml:2:");
    }
}
