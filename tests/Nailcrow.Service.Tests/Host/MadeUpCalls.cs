using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Nailcrow.Service.Tests.Host;

/// <summary>
/// Calls made up from the interface's own description: mostly what it says it takes, and in places what nobody should send. It knows
/// nothing of the code behind.
/// </summary>
internal sealed class MadeUpCalls(JsonElement openApi, Random chance)
{
    // Deep enough for a ticket's bodies; a description that leads back into itself ends here.
    private const int Deepest = 7;

    /// <summary>JSON texts that are not what is asked for, half a character (a lone surrogate) among them.</summary>
    private static readonly string[] Nasty =
    [
        "\"\\ud800\"",
        "\"\\u0000\"",
        "\"a\\udc00\\u202e\\u0007\"",
        "\"\"",
        "\" \"",
        "\"../../etc/passwd\"",
        "\"'; DROP TABLE journal; --\"",
        "\"9999-12-31T23:59:59Z\"",
        "\"0001-01-01T00:00:00+14:00\"",
        "\"2026-02-30\"",
        "\"nailcrow\"",
        "-1",
        "0",
        "2147483648",
        "9223372036854775807",
        "-9223372036854775808",
        "1e308",
        "0.1",
        "true",
        "null",
        "[]",
        "{}",
        "[null]",
        "[[]]",
        "{\"kind\":1}",
        "{\"kind\":\"note-written\"}",
        "\"" + new string('x', 9_000) + "\"",
        new string('[', 80) + new string(']', 80),
    ];

    private static readonly string[] InPaths =
    [
        "1",
        "1001",
        "0",
        "-1",
        "9223372036854775807",
        "99999999999999999999",
        "T-1001",
        "ilka",
        "FSC-0203",
        "FSC-0107",
        "%20",
        "%00",
        "%ED%A0%80",
        "..%2F..%2Fetc%2Fpasswd",
        "a%2Fb",
        "'",
        "%F0%9F%94%A9",
        new string('q', 2_000),
        "01a00000-0000-7000-8000-000000000001",
        "drives",
        "service-report",
    ];

    /// <summary>Every call that may be made a thousand times: not those that end the sign-in they are made with, or never end.</summary>
    public IEnumerable<(string Method, string Path, JsonElement Says)> All() =>
        from path in openApi.GetProperty("paths").EnumerateObject()
        where path.Name is not ("/api/sign-out" or "/api/live" or "/api/admin/backup" or "/api/sign-in" or "/api/sign-in/console")
        from call in path.Value.EnumerateObject()
        select (call.Name, path.Name, call.Value);

    public HttpRequestMessage Make(string method, string path, JsonElement says)
    {
        var query = new List<string>();
        foreach (var parameter in says.TryGetProperty("parameters", out var all) ? all.EnumerateArray() : [])
        {
            var name = parameter.GetProperty("name").GetString()!; // each has one, in OpenAPI
            if (parameter.GetProperty("in").GetString() == "path")
                path = path.Replace($"{{{name}}}", Segment(parameter.GetProperty("schema")), StringComparison.Ordinal);
            else if (parameter.GetProperty("in").GetString() == "query" && chance.Next(2) == 0)
                query.Add($"{name}={Segment(parameter.GetProperty("schema"))}");
        }
        // Routes are told with what they take: {number:long} stands as {number}.
        var ask = new HttpRequestMessage(
            new HttpMethod(method.ToUpperInvariant()),
            path.TrimStart('/') + (query.Count > 0 ? $"?{string.Join('&', query)}" : "")
        );
        if (says.TryGetProperty("requestBody", out var body))
            ask.Content = Body(body);
        return ask;
    }

    private ByteArrayContent Body(JsonElement body)
    {
        var (type, schema) = body.GetProperty("content").EnumerateObject().Select(c => (c.Name, c.Value)).First();
        var bytes =
            type == "application/json" && schema.TryGetProperty("schema", out var of)
                ? Encoding.UTF8.GetBytes(chance.Next(25) == 0 ? "{\"a\":" : Value(of, 0))
                : [.. Enumerable.Range(0, chance.Next(400)).Select(_ => (byte)chance.Next(256))];
        return new ByteArrayContent(bytes)
        {
            Headers = { ContentType = new(type.Contains('*', StringComparison.Ordinal) ? "application/octet-stream" : type) },
        };
    }

    private string Segment(JsonElement schema) =>
        chance.Next(3) == 0
            ? Uri.EscapeDataString(Value(schema, Deepest).Trim('"').Replace("\\u", "", StringComparison.Ordinal))
            : InPaths[chance.Next(InPaths.Length)];

    private string Value(JsonElement schema, int depth)
    {
        if (chance.Next(12) == 0)
            return Nasty[chance.Next(Nasty.Length)];
        if (schema.TryGetProperty("$ref", out var to))
            return Value(Named(to.GetString()!), depth + 1); // a reference is text
        foreach (var choice in new[] { "anyOf", "oneOf" })
            if (schema.TryGetProperty(choice, out var any))
                return Value(any[chance.Next(any.GetArrayLength())], depth + 1);
        if (schema.TryGetProperty("enum", out var words))
            return words[chance.Next(words.GetArrayLength())].GetRawText();
        var type = Types(schema).FirstOrDefault(t => t != "null");
        return type switch
        {
            "object" when depth < Deepest => Object(schema, depth),
            "array" when depth < Deepest && schema.TryGetProperty("items", out var item) =>
                $"[{string.Join(',', Enumerable.Range(0, chance.Next(4)).Select(_ => Value(item, depth + 1)))}]",
            "array" => "[]",
            "integer" => Numbers[chance.Next(Numbers.Length)],
            "number" => chance.NextDouble().ToString(CultureInfo.InvariantCulture),
            "boolean" => chance.Next(2) == 0 ? "true" : "false",
            "string" => Text(schema),
            _ => schema.TryGetProperty("properties", out _) && depth < Deepest ? Object(schema, depth) : "{}",
        };
    }

    private static readonly string[] Numbers = ["0", "1", "2", "7", "100", "1001", "12000138625024", "-1"];

    private static readonly string[] Texts =
    [
        "2",
        "ilka",
        "FSC-0203",
        "CDR12T0005",
        "As agreed",
        "vault",
        "Stores",
        "van of ilka",
        "quicksilver",
        "a@b.example",
    ];

    private string Text(JsonElement schema) =>
        (schema.TryGetProperty("format", out var format) ? format.GetString() : null) switch
        {
            "uuid" => $"\"{Guid.CreateVersion7()}\"",
            "date-time" => "\"2026-03-01T08:00:00Z\"",
            "date" => "\"2026-12-31\"",
            _ => $"\"{Texts[chance.Next(Texts.Length)]}\"",
        };

    private string Object(JsonElement schema, int depth)
    {
        var needed = schema.TryGetProperty("required", out var must)
            ? [.. must.EnumerateArray().Select(m => m.GetString()!)]
            : new HashSet<string>();
        var fields = (schema.TryGetProperty("properties", out var all) ? all.EnumerateObject() : default)
            .Where(f => needed.Contains(f.Name) ? chance.Next(40) > 0 : chance.Next(3) == 0)
            .Select(f => $"\"{f.Name}\":{Value(f.Value, depth + 1)}");
        return $"{{{string.Join(',', fields)}}}";
    }

    private static IEnumerable<string?> Types(JsonElement schema) =>
        !schema.TryGetProperty("type", out var type) ? []
        : type.ValueKind == JsonValueKind.Array ? type.EnumerateArray().Select(t => t.GetString())
        : [type.GetString()];

    private JsonElement Named(string reference) =>
        reference.TrimStart('#', '/').Split('/').Aggregate(openApi, (at, name) => at.GetProperty(name));
}
