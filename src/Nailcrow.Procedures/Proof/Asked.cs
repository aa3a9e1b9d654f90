using Nailcrow.Core.Procedures.Conditions;

namespace Nailcrow.Procedures.Proof;

/// <summary>A condition over the variables of a walk, with every comparison made once beforehand: it is asked in every state.</summary>
internal abstract record Asked
{
    private Asked() { }

    private sealed record Settled(bool? Is) : Asked;

    private sealed record Both(Asked Left, Asked Right) : Asked;

    private sealed record Either(Asked Left, Asked Right) : Asked;

    private sealed record Opposite(Asked One) : Asked;

    /// <param name="By">Whether it holds, for each place of the variable's values.</param>
    private sealed record Compared(int Variable, bool[] By) : Asked;

    /// <summary>May hold or not.</summary>
    public static readonly Asked Open = new Settled(null);

    public static Asked Of(Condition condition, Variables variables) =>
        condition switch
        {
            Condition.Constant c => new Settled(c.Is),
            Condition.Both b => new Both(Of(b.Left, variables), Of(b.Right, variables)),
            Condition.Either e => new Either(Of(e.Left, variables), Of(e.Right, variables)),
            Condition.Opposite o => new Opposite(Of(o.Of, variables)),
            _ when variables.IndexOf(condition.Facts().First()) is var variable and >= 0 => new Compared(
                variable,
                [.. variables.Values(variable).Select(value => condition.Holds(_ => value) == true)]
            ),
            _ => Open, // nobody follows that fact on this walk
        };

    /// <summary>As <see cref="Condition.Holds"/>: null where what a state knows does not decide it.</summary>
    public bool? Holds(string values) =>
        this switch
        {
            Settled s => s.Is,
            Compared c => values[c.Variable] is not '\0' and var place ? c.By[place - 1] : null,
            Both b => b.Left.Holds(values) is var left && left == false ? false
            : b.Right.Holds(values) is var right && right == false ? false
            : left & right,
            Either e => e.Left.Holds(values) is var left && left == true ? true
            : e.Right.Holds(values) is var right && right == true ? true
            : left | right,
            Opposite o => !o.One.Holds(values),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
}
