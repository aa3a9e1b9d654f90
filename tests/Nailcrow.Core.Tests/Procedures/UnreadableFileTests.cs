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
    public void What_is_no_YAML_is_told_with_its_place(string text)
    {
        var (procedure, problems) = ProcedureReader.Read("made-up.yaml", text, Shelf.Empty);

        procedure.ShouldBeNull();
        problems.ShouldNotBeEmpty();
        problems.ShouldAllBe(p => p.Line >= 1);
    }

    [Fact]
    public void Where_the_reading_itself_stumbles_the_place_is_what_had_been_read()
    {
        var (_, problems) = ProcedureReader.Read("made-up.yaml", "procedure: x\nsteps: [asset, array:\napplies-to:her]\n", Shelf.Empty);

        problems.Single().ToString().ShouldStartWith("made-up.yaml:2:");
    }
}
