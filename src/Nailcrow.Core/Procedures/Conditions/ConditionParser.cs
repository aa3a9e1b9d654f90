using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Procedures.Conditions;

/// <summary>
/// Reads a condition: <c>model.release is needed and (answer.lamp is not yes or model.cover-limit is at least 2 min)</c>.
/// The grammar is in docs/procedures.md. The first mistake is told with its place in the text.
/// </summary>
public sealed class ConditionParser
{
    // Conditions are read aloud by people; the longest in use names five facts.
    private const int MostWords = 200;
    private const int Deepest = 20;

    private readonly IReadOnlyDictionary<string, FactType> _facts;
    private readonly List<Token> _tokens;
    private int _next;
    private int _depth;

    private ConditionParser(List<Token> tokens, IReadOnlyDictionary<string, FactType> facts) => (_tokens, _facts) = (tokens, facts);

    /// <summary>A condition, or what is wrong and at which character of the text (from 0).</summary>
    public static (Condition? Condition, string? Problem, int At) Parse(string text, IReadOnlyDictionary<string, FactType> facts)
    {
        var tokens = Token.Of(text).ToList();
        if (tokens.Count > MostWords)
            return (null, $"A condition has at most {MostWords} words; this one has {tokens.Count}.", 0);
        var parser = new ConditionParser(tokens, facts);
        try
        {
            var read = parser.Either();
            return parser.Peek is { IsEnd: false } more
                ? (null, $"'{more.Text}' is one word too many; expected 'and', 'or' or the end.", more.At)
                : (read, null, 0);
        }
        catch (NotSo e)
        {
            return (null, e.Message, e.At);
        }
    }

    private Token Peek => _tokens[_next];

    private Condition Either()
    {
        var left = Both();
        while (Takes("or"))
            left = new Condition.Either(left, Both());
        return left;
    }

    private Condition Both()
    {
        var left = One();
        while (Takes("and"))
            left = new Condition.Both(left, One());
        return left;
    }

    private Condition One()
    {
        if (++_depth > Deepest)
            throw new NotSo($"Brackets and 'not' go at most {Deepest} deep.", Peek.At);
        var read =
            Takes("not") ? new Condition.Opposite(One())
            : Takes("(") ? Bracketed()
            : Comparison();
        _depth--;
        return read;
    }

    private Condition Bracketed()
    {
        var inside = Either();
        return Takes(")") ? inside : throw Expected("')'");
    }

    private Condition Comparison()
    {
        var name = Take("a fact like model.loading, ticket.job or answer.backup");
        if (name.Text is "always" or "never")
            return new Condition.Constant(name.Text == "always");
        if (!_facts.TryGetValue(name.Text, out var type))
            throw new NotSo($"'{name.Text}' is no fact.{Nearest.Hint(name.Text, _facts.Keys)} Accepted: {Told(name.Text)}.", name.At);
        if (!Takes("is"))
            throw Expected($"'is' after '{name.Text}'");
        return type switch
        {
            FactType.OneOf words => OfWords(name.Text, words.Words),
            FactType.Number number => OfNumber(name.Text, number.Dimension),
            _ => throw new NotSo(
                $"'{name.Text}' is free text, which is kept and compared to nothing; ask it with 'look' and answers, or give it a 'unit'.",
                name.At
            ),
        };
    }

    private Condition OfWords(string fact, IReadOnlyList<string> accepted)
    {
        if (Takes("not"))
            return new Condition.Opposite(new Condition.IsOneOf(fact, [Word(fact, accepted)]));
        if (!Takes("one"))
            return new Condition.IsOneOf(fact, [Word(fact, accepted)]);
        if (!Takes("of"))
            throw Expected("'of' after 'one'");
        var words = new List<string> { Word(fact, accepted) };
        while (Takes(","))
            words.Add(Word(fact, accepted));
        return new Condition.IsOneOf(fact, words);
    }

    private Condition OfNumber(string fact, Dimension dimension)
    {
        var not = Takes("not");
        var how =
            Takes("above") ? Conditions.Comparison.Above
            : Takes("below") ? Conditions.Comparison.Below
            : Takes("at")
                ? Takes("least") ? Conditions.Comparison.AtLeast
                    : Takes("most") ? Conditions.Comparison.AtMost
                    : throw Expected("'least' or 'most' after 'at'")
            : Conditions.Comparison.Exactly;
        var number = Take($"{Quantity.Accepted(dimension)}, or above, below, at least, at most one");
        var unit = !Peek.IsEnd && Quantity.AllUnits.Contains(Peek.Text) ? _tokens[_next++].Text : "";
        return Quantity.Parse($"{number.Text} {unit}", dimension).Is(out var value, out var reason)
            ? not
                ? new Condition.Opposite(new Condition.Stands(fact, how, value))
                : new Condition.Stands(fact, how, value)
            : throw new NotSo($"{reason} ('{fact}' is above, below, at least or at most a number.)", number.At);
    }

    private string Word(string fact, IReadOnlyList<string> accepted)
    {
        var word = Take($"one of {string.Join(", ", accepted)}");
        return accepted.Contains(word.Text)
            ? word.Text
            : throw new NotSo(
                $"'{fact}' is never '{word.Text}'.{Nearest.Hint(word.Text, accepted)} Accepted: {string.Join(", ", accepted)}.",
                word.At
            );
    }

    /// <summary>Names of the same family where it is one, else the families: the whole list would bury the mistake.</summary>
    private string Told(string name)
    {
        var family = name.Split('.')[0] + ".";
        var own = _facts.Keys.Where(f => f.StartsWith(family, StringComparison.Ordinal)).ToList();
        return own.Count > 0 ? string.Join(", ", own) : "model.…, ticket.… or answer.… and the id of an earlier step";
    }

    private bool Takes(string word)
    {
        if (Peek.IsEnd || Peek.Text != word)
            return false;
        _next++;
        return true;
    }

    private Token Take(string expected) => Peek.IsEnd ? throw Expected(expected) : _tokens[_next++];

    private NotSo Expected(string what) =>
        new(Peek.IsEnd ? $"The condition ends here; expected {what}." : $"'{Peek.Text}' stands here; expected {what}.", Peek.At);

    private sealed class NotSo(string message, int at) : Exception(message)
    {
        public int At => at;
    }
}
