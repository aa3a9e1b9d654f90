namespace Nailcrow.Core.Procedures.Conditions;

/// <summary>Something that holds or not, once the facts it names are known. Made by <see cref="ConditionParser"/>.</summary>
public abstract record Condition
{
    private Condition() { }

    public sealed record Constant(bool Is) : Condition;

    public sealed record Both(Condition Left, Condition Right) : Condition;

    public sealed record Either(Condition Left, Condition Right) : Condition;

    public sealed record Opposite(Condition Of) : Condition;

    /// <summary>The fact is one of these words.</summary>
    public sealed record IsOneOf(string Fact, IReadOnlyList<string> Words) : Condition;

    /// <summary>The fact stands so to a number, in the base unit of the fact (seconds, bytes, percent, degrees Celsius, a count).</summary>
    public sealed record Stands(string Fact, Comparison How, decimal Number) : Condition;

    public static readonly Condition Always = new Constant(true);

    /// <summary>True or false as far as what is known decides it, null where it does not (Kleene's three-valued logic, 1938).</summary>
    /// <param name="known">The value of a fact as a word or an invariant number; null where it is not known.</param>
    public bool? Holds(Func<string, string?> known) =>
        this switch
        {
            Constant c => c.Is,
            Both b => b.Left.Holds(known) is var left && left == false ? false
            : b.Right.Holds(known) is var right && right == false ? false
            : left & right,
            Either e => e.Left.Holds(known) is var left && left == true ? true
            : e.Right.Holds(known) is var right && right == true ? true
            : left | right,
            Opposite o => !o.Of.Holds(known),
            IsOneOf i => known(i.Fact) is { } word ? i.Words.Contains(word) : null,
            Stands s => known(s.Fact) is { } text ? Comparisons.Hold(s.How, text, s.Number) : null,
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    /// <summary>What is left of it once the known facts are settled.</summary>
    public Condition Settled(Func<string, string?> known) =>
        Holds(known) is { } decided
            ? new Constant(decided)
            : this switch
            {
                Both b => b.Left.Holds(known) == true ? b.Right.Settled(known)
                : b.Right.Holds(known) == true ? b.Left.Settled(known)
                : new Both(b.Left.Settled(known), b.Right.Settled(known)),
                Either e => e.Left.Holds(known) == false ? e.Right.Settled(known)
                : e.Right.Holds(known) == false ? e.Left.Settled(known)
                : new Either(e.Left.Settled(known), e.Right.Settled(known)),
                Opposite o => new Opposite(o.Of.Settled(known)),
                _ => this,
            };

    /// <summary>The facts it names, in the order it names them.</summary>
    public IEnumerable<string> Facts() =>
        this switch
        {
            Both b => b.Left.Facts().Concat(b.Right.Facts()),
            Either e => e.Left.Facts().Concat(e.Right.Facts()),
            Opposite o => o.Of.Facts(),
            IsOneOf i => [i.Fact],
            Stands s => [s.Fact],
            _ => [],
        };

    /// <summary>The same condition about facts of other names.</summary>
    public Condition Naming(Func<string, string> name) =>
        this switch
        {
            Both b => new Both(b.Left.Naming(name), b.Right.Naming(name)),
            Either e => new Either(e.Left.Naming(name), e.Right.Naming(name)),
            Opposite o => new Opposite(o.Of.Naming(name)),
            IsOneOf i => i with { Fact = name(i.Fact) },
            Stands s => s with { Fact = name(s.Fact) },
            _ => this,
        };

    public static Condition And(Condition left, Condition right) =>
        left == Always ? right
        : right == Always ? left
        : new Both(left, right);

    /// <summary>As one would write it in a procedure.</summary>
    public sealed override string ToString() =>
        this switch
        {
            Constant c => c.Is ? "always" : "never",
            Both b => $"{Wrapped(b.Left)} and {Wrapped(b.Right)}",
            Either e => $"{e.Left} or {e.Right}",
            Opposite { Of: IsOneOf { Words: [var only] } i } => $"{i.Fact} is not {only}",
            Opposite o => $"not ({o.Of})",
            IsOneOf { Words: [var only] } i => $"{i.Fact} is {only}",
            IsOneOf i => $"{i.Fact} is one of {string.Join(", ", i.Words)}",
            Stands s => FormattableString.Invariant($"{s.Fact} is {Comparisons.Of(s.How)}{s.Number}"),
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    private static string Wrapped(Condition part) => part is Either ? $"({part})" : $"{part}";
}
