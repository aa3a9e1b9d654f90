using System.Text.Json.Nodes;
using Nailcrow.Running;
using Nailcrow.Service.Tests.Nodes;

namespace Nailcrow.Service.Tests.Host;

/// <summary>A console that is open, a terminal and a script of the release before go on while the service is upgraded.</summary>
public sealed class InterfaceTests
{
    // What only explains; and what says which is meant, which is told by what it is said of.
    private static readonly HashSet<string> Explains = ["description", "summary", "title", "example", "examples", "version"];

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_the_release_before_took_and_answered_is_taken_and_answered_and_is_only_added_to()
    {
        var before = await ReadAsync(Path.Combine(Path.GetDirectoryName(await ReleaseBefore.ServiceAsync(Ct))!, "openapi.json"));
        var now = await ReadAsync(Path.Combine(Built.Root, "docs", "openapi.json"));

        Calls(before).Count.ShouldBeGreaterThan(100);
        Lost(before, now).ShouldBeEmpty();
    }

    /// <summary>A check that sees nothing would be passed by anything.</summary>
    [Theory]
    [InlineData("a call", "/paths/~1api~1tickets")]
    [InlineData("a member of what is answered", "/components/schemas/ServiceReport/properties/heading")]
    [InlineData("a word that may be said", "/components/schemas/Role/enum/0")]
    [InlineData("an answer", "/paths/~1api~1sites/get/responses/200")]
    public async Task Whatever_is_taken_away_is_told(string what, string pointer)
    {
        var (before, now) = (
            await ReadAsync(Path.Combine(Built.Root, "docs", "openapi.json")),
            await ReadAsync(Path.Combine(Built.Root, "docs", "openapi.json"))
        );
        var names = pointer[1..].Split('/').Select(name => name.Replace("~1", "/")).ToList();
        var holder = names[..^1]
            .Aggregate((JsonNode)now, (node, name) => node[name] ?? throw new InvalidOperationException($"{what}: {name}"));
        (holder is JsonArray array ? TakeFirst(array) : holder.AsObject().Remove(names[^1])).ShouldBeTrue(what);

        Lost(before, now).ShouldNotBeEmpty(what);

        static bool TakeFirst(JsonArray array)
        {
            array.RemoveAt(0);
            return true;
        }
    }

    [Fact]
    public async Task What_has_to_be_said_and_had_not_to_be_is_told()
    {
        var (before, now) = (
            await ReadAsync(Path.Combine(Built.Root, "docs", "openapi.json")),
            await ReadAsync(Path.Combine(Built.Root, "docs", "openapi.json"))
        );
        var asked = now["components"]!["schemas"]!["FaultAsk"] ?? throw new InvalidOperationException("It has another name by now.");
        var free = asked["properties"]!.AsObject().Select(p => p.Key).First(name => !Words(asked["required"]).Contains(name));
        (asked["required"] ??= new JsonArray()).AsArray().Add(free);

        Lost(before, now).ShouldBe([$"components.schemas.FaultAsk.required: {free} has to be said by now"]);
    }

    private static async Task<JsonObject> ReadAsync(string path) => JsonNode.Parse(await File.ReadAllTextAsync(path, Ct))!.AsObject();

    private static List<string> Calls(JsonObject of) =>
        [.. of["paths"]!.AsObject().SelectMany(path => path.Value!.AsObject().Select(call => $"{call.Key} {path.Key}"))];

    private static List<string> Lost(JsonObject before, JsonObject now)
    {
        var asked = Asked(before);
        return [.. Lost(before["paths"]!, now["paths"], "paths", true), .. Schemas().SelectMany(lost => lost)];

        IEnumerable<IEnumerable<string>> Schemas() =>
            before["components"]!["schemas"]!
                .AsObject()
                .Select(s => Lost(s.Value!, now["components"]!["schemas"]![s.Key], $"components.schemas.{s.Key}", asked.Contains(s.Key)));
    }

    /// <param name="asked">It is said by whoever asks: what was left out may still be left out.</param>
    private static IEnumerable<string> Lost(JsonNode before, JsonNode? now, string at, bool asked) =>
        (before, now) switch
        {
            (_, null) => [$"{at} is gone"],
            (JsonObject was, JsonObject is_) => was.Where(member =>
                    !Explains.Contains(member.Key) || at.EndsWith(".properties", StringComparison.Ordinal)
                )
                .SelectMany(member => LostMember(member.Key, member.Value, is_[member.Key], $"{at}.{member.Key}", asked))
                .Concat(asked && !was.ContainsKey("required") ? Newly([], Words(is_["required"]), at) : []),
            (JsonArray was, JsonArray is_) => was.Where(one => !is_.Any(other => JsonNode.DeepEquals(one, other)))
                .Select(one => $"{at}: {one?.ToJsonString()} is gone"),
            _ => JsonNode.DeepEquals(before, now) ? [] : [$"{at} was {before.ToJsonString()} and is {now.ToJsonString()}"],
        };

    private static IEnumerable<string> LostMember(string name, JsonNode? before, JsonNode? now, string at, bool asked) =>
        (name, before) switch
        {
            (_, null) => [],
            ("parameters", JsonArray was) => LostParameters(was, now as JsonArray ?? [], at),
            ("required", JsonArray was) => asked ? Newly(Words(was), Words(now), at) : Lost(was, now, at, asked),
            _ => Lost(before, now, at, asked),
        };

    private static IEnumerable<string> LostParameters(JsonArray before, JsonArray now, string at) =>
        before
            .SelectMany(p => Lost(p!, now.FirstOrDefault(q => Name(q) == Name(p)), $"{at}.{Name(p)}", true))
            .Concat(now.Where(q => Needed(q) && before.All(p => Name(p) != Name(q))).Select(q => $"{at}: {Name(q)} has to be said by now"));

    private static IEnumerable<string> Newly(List<string> before, List<string> now, string at) =>
        now.Except(before)
            .Select(name => $"{(at.EndsWith("required", StringComparison.Ordinal) ? at : $"{at}.required")}: {name} has to be said by now");

    private static string Name(JsonNode? parameter) => $"{parameter!["in"]} {parameter["name"]}";

    private static bool Needed(JsonNode? parameter) => parameter!["required"]?.GetValue<bool>() ?? false;

    private static List<string> Words(JsonNode? list) => [.. (list as JsonArray ?? []).Select(word => word!.GetValue<string>())];

    /// <summary>The schemas of all that can be said to the service, through all that they are made of.</summary>
    private static HashSet<string> Asked(JsonObject of)
    {
        var (found, open) = (new HashSet<string>(), new Queue<JsonNode>());
        foreach (var (_, path) in of["paths"]!.AsObject())
        foreach (var (_, call) in path!.AsObject())
            if (call!["requestBody"] is { } body)
                open.Enqueue(body);
        while (open.TryDequeue(out var node))
            foreach (var name in Named(node))
                if (found.Add(name))
                    open.Enqueue(of["components"]!["schemas"]![name]!);
        return found;
    }

    private static IEnumerable<string> Named(JsonNode? node) =>
        node switch
        {
            JsonObject members => members.SelectMany(m =>
                m.Key == "$ref" && m.Value is JsonValue to ? [to.GetValue<string>().Split('/')[^1]] : Named(m.Value)
            ),
            JsonArray list => list.SelectMany(Named),
            _ => [],
        };
}
