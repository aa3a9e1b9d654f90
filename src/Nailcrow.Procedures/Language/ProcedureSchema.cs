using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;

namespace Nailcrow.Procedures.Language;

/// <summary>The language as a JSON Schema (draft 2020-12), made from the words the reader accepts.</summary>
public static class ProcedureSchema
{
    private static readonly JsonSerializerOptions Written = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    public static string Text()
    {
        var schema = Object(
            [
                ("procedure", Of("string")),
                ("title", Of("string")),
                ("comes-back", OneOf<ComesBack>()),
                ("applies-to", Of("string")),
                ("by-name", YesNo()),
                ("not-so", Of("string")),
                ("skeleton", Of("string")),
                ("fills", new JsonObject { ["type"] = "object", ["additionalProperties"] = Ref("steps") }),
                ("adds", List(Object([("after", Of("string")), ("steps", Ref("steps"))], "after", "steps"))),
                (
                    "chapters",
                    List(Object([("chapter", Of("string")), ("when", Of("string")), ("steps", Ref("steps"))], "chapter", "steps"))
                ),
            ],
            "procedure",
            "title",
            "comes-back",
            "applies-to"
        );
        schema["$schema"] = "https://json-schema.org/draft/2020-12/schema";
        schema["title"] = "A Nailcrow procedure";
        schema["$defs"] = new JsonObject { ["steps"] = List(Item()), ["step"] = Step() };
        return schema.ToJsonString(Written) + "\n";
    }

    private static JsonObject Item() =>
        new()
        {
            ["anyOf"] = new JsonArray(
                Object([("use", Of("string")), ("when", Of("string"))], "use"),
                Object([("place", Of("string")), ("must-fill", YesNo()), ("when", Of("string"))], "place"),
                Object(
                    [("each", new JsonObject { ["const"] = "drive" }), ("when", Of("string")), ("steps", Ref("steps"))],
                    "each",
                    "steps"
                ),
                Ref("step")
            ),
        };

    private static JsonObject Step()
    {
        var step = Object([.. StepReader.Kinds.Select(k => (k, Of("string"))), .. StepReader.OtherKeys.Select(k => (k, Key(k)))], "id");
        step["oneOf"] = new JsonArray([.. StepReader.Kinds.Select(k => new JsonObject { ["required"] = new JsonArray(k) })]);
        return step;
    }

    private static JsonObject Key(string key) =>
        key switch
        {
            "records" => OneOf<Records>(),
            "against" => OneOf<ScanTarget>(),
            "needs" => OneOf<GateFact>(),
            "points-at" => OneOf<PointsAt>(),
            "decides" => OneOf<Role>(),
            "allows" => new JsonObject { ["const"] = "pull" },
            "moves" => new JsonObject { ["const"] = "nothing" },
            "means" => new JsonObject { ["type"] = "object", ["additionalProperties"] = Of("string") },
            "erases" => YesNo(),
            "answers" => new JsonObject { ["type"] = "object", ["additionalProperties"] = Of("string") },
            "normal-now" or "with" => List(Of("string")),
            "seconds" => Types("integer", "string"),
            "at-least" or "at-most" => Types("number", "string"),
            _ => Of("string"),
        };

    private static JsonObject Object((string Name, JsonObject Of)[] properties, params string[] required) =>
        new()
        {
            ["type"] = "object",
            ["properties"] = new JsonObject(properties.Select(p => KeyValuePair.Create<string, JsonNode?>(p.Name, p.Of))),
            ["required"] = new JsonArray([.. required.Select(r => JsonValue.Create(r))]),
            ["additionalProperties"] = false,
        };

    private static JsonObject List(JsonObject of) => new() { ["type"] = "array", ["items"] = of };

    private static JsonObject Of(string type) => new() { ["type"] = type };

    private static JsonObject Types(params string[] types) =>
        new() { ["type"] = new JsonArray([.. types.Select(t => JsonValue.Create(t))]) };

    private static JsonObject Ref(string name) => new() { ["$ref"] = $"#/$defs/{name}" };

    /// <summary>Editors may read a bare yes as true (YAML 1.1).</summary>
    private static JsonObject YesNo() => new() { ["enum"] = new JsonArray("yes", "no", true, false) };

    private static JsonObject OneOf<T>()
        where T : struct, Enum => new() { ["enum"] = new JsonArray([.. Enum.GetValues<T>().Select(v => JsonValue.Create(Words.Of(v)))]) };
}
