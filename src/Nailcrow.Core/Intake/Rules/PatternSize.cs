namespace Nailcrow.Core.Intake.Rules;

/// <summary>
/// How large an automaton a pattern asks for: each character that it may match counts, as often as it is repeated. A pattern of twenty
/// characters can ask for a billion of them, (((a{99}){99}){99}){99}, and building that stops whoever builds it.
/// </summary>
internal static class PatternSize
{
    /// <summary>A line has 8,192 characters; a pattern that says something about one of them fits well into this.</summary>
    public const long Most = 5_000;

    /// <summary>No part is repeated more often; a bay or a serial is not longer.</summary>
    public const int MostRepeated = 200;

    /// <returns>What is wrong with it, as the end of a sentence; null where nothing is.</returns>
    public static string? Problem(string pattern)
    {
        var reading = new Reading(pattern);
        var size = reading.Alternatives();
        return reading.TooOften is { } often ? $"repeats a part up to {often} times; at most {MostRepeated}, or without a bound"
            : size > Most ? $"asks for more than {Most} places in a line, its repetitions multiplied; make them fewer"
            : null;
    }

    /// <summary>One walk over the pattern. What is no pattern at all is told by whoever compiles it.</summary>
    private sealed class Reading(string pattern)
    {
        private int _at;

        /// <summary>The largest bound that is larger than may be.</summary>
        public long? TooOften { get; private set; }

        public long Alternatives()
        {
            var size = 0L;
            while (_at < pattern.Length && pattern[_at] != ')')
            {
                var one = Atom();
                size = Math.Min(Most * 1_000, size + one * Times());
            }
            return size;
        }

        private long Atom()
        {
            switch (pattern[_at++])
            {
                case '(':
                    var inner = Alternatives();
                    _at++; // its end, or the pattern's
                    return Math.Max(1, inner);
                case '[':
                    Class();
                    return 1;
                case '\\':
                    _at++;
                    return 1;
                default:
                    return 1;
            }
        }

        /// <summary>To the end of a character class; a bracket that comes first in it is one of its characters.</summary>
        private void Class()
        {
            if (_at < pattern.Length && pattern[_at] == '^')
                _at++;
            if (_at < pattern.Length && pattern[_at] == ']')
                _at++;
            while (_at < pattern.Length && pattern[_at] != ']')
                _at += pattern[_at] == '\\' ? 2 : 1;
            _at++;
        }

        /// <summary>How often what came before may stand there at least to count: without an upper bound, as often as it must.</summary>
        private long Times()
        {
            var times = 1L;
            while (_at < pattern.Length && Quantifier() is { } again)
                times = Math.Min(Most * 1_000, times * Math.Max(1, again));
            return times;
        }

        private long? Quantifier()
        {
            if (pattern[_at] is '*' or '+' or '?')
            {
                _at++;
                return 1;
            }
            var end = pattern[_at] == '{' ? pattern.IndexOf('}', _at) : -1;
            if (end < 0)
                return null;
            var bounds = pattern[(_at + 1)..end].Split(',');
            if (bounds.Length > 2 || bounds[0].Length == 0 || bounds.Any(b => !b.All(char.IsAsciiDigit)))
                return null; // a brace that means itself
            _at = end + 1;
            var most = bounds.Max(b =>
                b.Length > 9 ? int.MaxValue
                : b.Length == 0 ? 0
                : long.Parse(b, System.Globalization.CultureInfo.InvariantCulture)
            );
            if (most > MostRepeated)
                TooOften = Math.Max(TooOften ?? 0, most);
            return most;
        }
    }
}
