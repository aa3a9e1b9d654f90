using System.Buffers;
using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Nailcrow.Core.Tickets.Journal.Canonical;

/// <summary>RFC 8785, the JSON Canonicalization Scheme: the one spelling of a JSON value that is hashed.</summary>
public static class CanonicalJson
{
    public static string Of(JsonElement value)
    {
        var text = new StringBuilder();
        Write(value, text);
        return text.ToString();
    }

    internal static void Write(JsonElement value, StringBuilder text)
    {
        switch (value.ValueKind)
        {
            case JsonValueKind.Undefined:
                break;
            case JsonValueKind.Object:
                WriteObject(value, text);
                break;
            case JsonValueKind.Array:
                WriteArray(value, text);
                break;
            case JsonValueKind.String:
                WriteString(value.GetString() ?? "", text);
                break;
            case JsonValueKind.Number:
                text.Append(Number(value.GetDouble()));
                break;
            default:
                text.Append(value.GetRawText());
                break;
        }
    }

    private static void WriteObject(JsonElement value, StringBuilder text)
    {
        // Section 3.2.3: names are ordered by UTF-16 code units, which is what ordinal comparison does.
        var members = new List<JsonProperty>(value.EnumerateObject());
        members.Sort(static (a, b) => string.CompareOrdinal(a.Name, b.Name));
        text.Append('{');
        for (var i = 0; i < members.Count; i++)
        {
            if (i > 0)
                text.Append(',');
            WriteString(members[i].Name, text);
            text.Append(':');
            Write(members[i].Value, text);
        }
        text.Append('}');
    }

    private static void WriteArray(JsonElement value, StringBuilder text)
    {
        text.Append('[');
        var first = true;
        foreach (var item in value.EnumerateArray())
        {
            if (!first)
                text.Append(',');
            first = false;
            Write(item, text);
        }
        text.Append(']');
    }

    /// <summary>Section 3.2.2.2: only quote, backslash and control characters are escaped.</summary>
    internal static void WriteString(string value, StringBuilder text)
    {
        text.Append('"');
        var rest = value.AsSpan();
        for (int at; (at = rest.IndexOfAny(Escaped)) >= 0; rest = rest[(at + 1)..])
        {
            text.Append(rest[..at]);
            _ = rest[at] switch
            {
                '"' => text.Append("\\\""),
                '\\' => text.Append("\\\\"),
                '\b' => text.Append("\\b"),
                '\f' => text.Append("\\f"),
                '\n' => text.Append("\\n"),
                '\r' => text.Append("\\r"),
                '\t' => text.Append("\\t"),
                var c => text.Append(CultureInfo.InvariantCulture, $"\\u{(int)c:x4}"),
            };
        }
        text.Append(rest).Append('"');
    }

    private static readonly SearchValues<char> Escaped = SearchValues.Create(['"', '\\', .. Enumerable.Range(0, ' ').Select(c => (char)c)]);

    /// <summary>Section 3.2.2.3: numbers as ECMAScript prints them (ECMA-262, Number::toString).</summary>
    internal static string Number(double value)
    {
        if (Math.Abs(value) < 1e15 && value == Math.Truncate(value))
            return ((long)value).ToString(CultureInfo.InvariantCulture); // nearly all of them, -0 among them
        var (digits, point) = Digits(Math.Abs(value).ToString("R", CultureInfo.InvariantCulture));
        var sign = value < 0 ? "-" : "";
        return sign + Placed(digits, point);
    }

    private static string Placed(string digits, int point)
    {
        if (digits.Length <= point && point <= 21)
            return digits + new string('0', point - digits.Length);
        if (point is > 0 and <= 21)
            return $"{digits[..point]}.{digits[point..]}";
        if (point is > -6 and <= 0)
            return $"0.{new string('0', -point)}{digits}";
        var exponent = point - 1;
        var mantissa = digits.Length == 1 ? digits : $"{digits[0]}.{digits[1..]}";
        return $"{mantissa}e{(exponent < 0 ? "-" : "+")}{Math.Abs(exponent)}";
    }

    /// <summary>Significant digits, and where the decimal point stands after the first of them.</summary>
    private static (string Digits, int Point) Digits(string text)
    {
        var e = text.IndexOf('E', StringComparison.Ordinal);
        var exponent = e < 0 ? 0 : int.Parse(text[(e + 1)..], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture);
        var mantissa = e < 0 ? text : text[..e];
        var dot = mantissa.IndexOf('.', StringComparison.Ordinal);
        var point = (dot < 0 ? mantissa.Length : dot) + exponent;
        var digits = mantissa.Replace(".", "", StringComparison.Ordinal);
        var leading = digits.Length - digits.TrimStart('0').Length;
        return (digits.Trim('0'), point - leading);
    }
}
