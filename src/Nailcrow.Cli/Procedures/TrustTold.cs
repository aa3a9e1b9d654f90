using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Core.Procedures.Checked;

namespace Nailcrow.Cli.Procedures;

/// <summary>What is taken on trust, one line each: who reads it should find what is not so.</summary>
internal static class TrustTold
{
    public static void List(Screen screen, IReadOnlyList<TakenOnTrust> trusted, string title)
    {
        screen.Line($"\n  [bold]{Screen.Safe(title)}[/]");
        foreach (var belief in Enum.GetValues<Belief>())
            if (trusted.Where(t => t.What == belief).ToList() is { Count: > 0 } some)
            {
                screen.Line($"  {Title(belief)}");
                foreach (var one in some)
                    screen.Line($"    {Screen.Safe(one.Step), -20} {Screen.Safe(Claim(one))}");
            }
    }

    private static string Title(Belief belief) =>
        belief switch
        {
            Belief.MovesNothing => "moves or empties no drive",
            Belief.Means => "means something else than it sounds",
            _ => "really is this mark",
        };

    private static string Claim(TakenOnTrust one) =>
        one.What switch
        {
            Belief.Means => $"'{one.Word}' in \"{one.Sentence}\": {one.Claim}",
            Belief.Mark => $"{one.Word}: \"{one.Sentence}\"",
            _ => $"\"{one.Sentence}\"",
        };
}
