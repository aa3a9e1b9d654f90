namespace Nailcrow.Core.Tests.Procedures;

/// <summary>A procedure that ships with something odd about it.</summary>
/// <param name="Told">What somebody did to it.</param>
/// <param name="Sentence">A part of what the proof says of it; empty where it has nothing to say.</param>
public sealed record Oddity(string Told, string Procedure, string Was, string Now, string Sentence = "")
{
    public override string ToString() => Told;

    /// <summary>Steps that are put before one of front-hot, as they would be typed there.</summary>
    public static Oddity Before(string step, string steps, string told, string sentence = "", string procedure = "front-hot") =>
        new(told, procedure, $"  - id: {step}\n", $"{Indented(steps)}  - id: {step}\n", sentence);

    private static string Indented(string steps) => string.Concat(steps.ReplaceLineEndings("\n").Split('\n').Select(l => $"  {l}\n"));
}
