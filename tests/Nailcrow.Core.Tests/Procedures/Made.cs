using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Procedures made up by the yard.</summary>
internal static class Made
{
    /// <summary>As many questions, each with a step that depends on its answer alone.</summary>
    public static Procedure WithConditions(int conditions)
    {
        var steps = string.Concat(
            Enumerable
                .Range(1, conditions)
                .Select(i =>
                    $"      - id: ask{i}\n        look: Is it so, {i}?\n        answers: {{ \"yes\": go on, \"no\": go on "
                    + $"}}\n      - id: only{i}\n        do: Do it.\n        when: answer.ask{i} is yes\n"
                )
        );
        return Read($"{Head}{steps}{Tail}");
    }

    /// <summary>As many things, each opened and closed only on machines of some number of bays.</summary>
    public static Procedure WithThings(int things)
    {
        var all = Enumerable.Range(1, things).ToList();
        string Steps(string does) =>
            string.Concat(
                all.Select(i =>
                    $"      - id: {does}{i}\n        do: It is {i}.\n        {does}: thing {i}\n        when: model.bays is above {i}\n"
                )
            );
        return Read($"{Head}{Steps("opens")}{Steps("closes")}{Tail}");
    }

    public const string Head =
        "procedure: made\ntitle: Made\ncomes-back: unchanged\napplies-to: always\nchapters:\n  - chapter: One\n    steps:\n";

    public const string Tail =
        "      - id: seen\n        gate: It was looked at.\n        needs: seen-again\n        answers: { "
        + "ask: help }\n        then: end\n      - id: help\n        call: Call.\n        with: [asset]\n       "
        + " then: seen\n";

    public static Procedure Read(string text)
    {
        var (procedure, problems) = Shipped.Read("made.yaml", text.ReplaceLineEndings("\n"));
        return procedure ?? throw new InvalidDataException(string.Join("\n", problems));
    }
}
