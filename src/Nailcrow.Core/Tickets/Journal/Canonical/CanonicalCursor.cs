using System.Buffers;
using System.Buffers.Text;
using System.Text;
using System.Text.Unicode;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Journal.Canonical;

/// <summary>
/// Goes along an object of canonical JSON (RFC 8785) in UTF-8. Its names come in order and there is nothing between them, so whoever
/// knows which there may be asks for one after the other, and nothing has to be looked for. Where anything is written otherwise the
/// cursor does not hold, whatever it said, and the text is to be read by its types.
/// </summary>
/// <remarks>
/// Of names asked for in another order than theirs, and of one that is not asked for, it never holds: a fault here is slow, not wrong.
/// </remarks>
internal ref struct CanonicalCursor(ReadOnlySpan<byte> text)
{
    private const int LengthOfDay = 10; // yyyy-MM-dd
    private const int LengthOfGuid = 36;
    private const int MostOfFraction = 7; // a tick is the tenth of a microsecond
    private static readonly SearchValues<byte> EndsPlainText = SearchValues.Create([
        .. Enumerable.Range(0, ' ').Append('"').Append('\\').Select(c => (byte)c),
    ]);

    private ReadOnlySpan<byte> _rest = text;
    private bool _first;

    public bool Holds { get; private set; } = true;

    /// <summary>Everything was read, to the end.</summary>
    public readonly bool HoldsToTheEnd => Holds && _rest.IsEmpty;

    /// <summary>What was read is not enough.</summary>
    public void Fail() => Holds = false;

    public void Begin()
    {
        Take("{"u8);
        _first = true;
    }

    public void End()
    {
        Take("}"u8);
        _first = false;
    }

    /// <summary>Whether the next name is this one; then its value is what comes next.</summary>
    public bool Named(ReadOnlySpan<byte> name)
    {
        var at = _first ? 0 : 1; // a comma
        var length = at + name.Length + 3; // in quotes, and a colon
        if (
            _rest.Length < length
            || (at == 1 && _rest[0] != ',')
            || _rest[at] != '"'
            || !_rest.Slice(at + 1, name.Length).SequenceEqual(name)
            || _rest[length - 2] != '"'
            || _rest[length - 1] != ':'
        )
            return false;
        _rest = _rest[length..];
        _first = false;
        return true;
    }

    public string? Text(ReadOnlySpan<byte> name) => Named(name) ? Text() : null;

    public string Text()
    {
        var text = Quoted();
        if (Utf8.IsValid(text))
            return Encoding.UTF8.GetString(text);
        Holds = false;
        return "";
    }

    public T? Word<T>(ReadOnlySpan<byte> name)
        where T : struct, Enum
    {
        if (!Named(name))
            return null;
        var written = Quoted();
        foreach (var (word, value) in Known<T>.Words)
            if (written.SequenceEqual(word))
                return value;
        Holds = false;
        return null;
    }

    public Guid? Id(ReadOnlySpan<byte> name)
    {
        if (!Named(name))
            return null;
        var written = Quoted();
        if (written.Length == LengthOfGuid && Utf8Parser.TryParse(written, out Guid id, out var read, 'D') && read == LengthOfGuid)
            return id;
        Holds = false;
        return null;
    }

    public long? Whole(ReadOnlySpan<byte> name)
    {
        if (!Named(name))
            return null;
        var digits = _rest is [(byte)'-', ..] ? _rest[1..] : _rest;
        if (digits is [>= (byte)'1' and <= (byte)'9', ..] or [(byte)'0', (byte)',' or (byte)'}', ..])
            if (Utf8Parser.TryParse(_rest, out long value, out var read) && read < _rest.Length && _rest[read] is (byte)',' or (byte)'}')
            {
                _rest = _rest[read..];
                return value;
            }
        Holds = false;
        return null;
    }

    public bool? Truth(ReadOnlySpan<byte> name)
    {
        if (!Named(name))
            return null;
        var so = _rest is [(byte)'t', ..];
        Take(so ? "true"u8 : "false"u8);
        return so;
    }

    public DateOnly? Day(ReadOnlySpan<byte> name)
    {
        if (!Named(name))
            return null;
        var written = Quoted();
        if (written.Length == LengthOfDay && TryDay(written, out var day))
            return DateOnly.FromDateTime(day);
        Holds = false;
        return null;
    }

    /// <summary>A moment in UTC, as RFC 3339 has it with an offset of +00:00.</summary>
    public DateTimeOffset? Moment(ReadOnlySpan<byte> name)
    {
        if (!Named(name))
            return null;
        var written = Quoted();
        if (
            written is [_, _, _, _, _, _, _, _, _, _, (byte)'T', _, _, (byte)':', _, _, (byte)':', _, _, .. var fraction]
            && fraction.EndsWith("+00:00"u8)
            && TryDay(written[..LengthOfDay], out var day)
            && Digits(written.Slice(11, 2)) is >= 0 and < 24 and var hours
            && Digits(written.Slice(14, 2)) is >= 0 and < 60 and var minutes
            && Digits(written.Slice(17, 2)) is >= 0 and < 60 and var seconds
            && TryFraction(fraction[..^6], out var ticks)
        )
            return new(day.Ticks + (((hours * 60L) + minutes) * 60 + seconds) * TimeSpan.TicksPerSecond + ticks, TimeSpan.Zero);
        Holds = false;
        return null;
    }

    private static bool TryDay(ReadOnlySpan<byte> written, out DateTime day)
    {
        day = default;
        if (
            written[4] != '-'
            || written[7] != '-'
            || Digits(written[..4]) is not (>= 1 and var year)
            || Digits(written.Slice(5, 2)) is not (>= 1 and <= 12 and var month)
            || Digits(written[8..]) is not (>= 1 and var number)
            || number > DateTime.DaysInMonth(year, month)
        )
            return false;
        day = new(year, month, number, 0, 0, 0, DateTimeKind.Unspecified);
        return true;
    }

    private static bool TryFraction(ReadOnlySpan<byte> written, out long ticks)
    {
        ticks = 0;
        if (written.IsEmpty)
            return true;
        if (written[0] != '.' || written.Length is < 2 or > MostOfFraction + 1 || Digits(written[1..]) is not (>= 0 and var digits))
            return false;
        ticks = digits;
        for (var i = written.Length; i <= MostOfFraction; i++)
            ticks *= 10;
        return true;
    }

    /// <summary>-1 where there is anything but digits.</summary>
    private static int Digits(ReadOnlySpan<byte> written)
    {
        var value = 0;
        foreach (var c in written)
        {
            if (c is < (byte)'0' or > (byte)'9')
                return -1;
            value = (value * 10) + (c - '0');
        }
        return value;
    }

    /// <summary>What stands between quotes where nothing in it is escaped.</summary>
    private ReadOnlySpan<byte> Quoted()
    {
        if (_rest is [(byte)'"', .. var inside] && inside.IndexOfAny(EndsPlainText) is >= 0 and var end && inside[end] == '"')
        {
            _rest = inside[(end + 1)..];
            return inside[..end];
        }
        Holds = false;
        return default;
    }

    private void Take(ReadOnlySpan<byte> what)
    {
        if (_rest.StartsWith(what))
            _rest = _rest[what.Length..];
        else
            Holds = false;
    }

    private static class Known<T>
        where T : struct, Enum
    {
        public static readonly (byte[] Written, T Value)[] Words =
        [
            .. Enum.GetValues<T>().Select(value => (Encoding.UTF8.GetBytes(Terms.Words.Of(value)), value)),
        ];
    }
}
