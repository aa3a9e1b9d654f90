using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Service.Host.Answers;

/// <summary>
/// No text that comes in has a character U+0000: one database takes it for the end of the text, another refuses it, and nobody ever meant
/// it. Bodies of entries are held to the same by their bounds, which say where it stands.
/// </summary>
internal static class WholeTexts
{
    /// <summary>Of a message's own fields.</summary>
    public static void In(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object || typeof(EntryBody).IsAssignableFrom(type.Type))
            return;
        var texts = type.Properties.Where(p => p.Get is not null && IsText(p.PropertyType)).ToList();
        if (texts.Count == 0)
            return;
        var before = type.OnDeserialized;
        type.OnDeserialized = read =>
        {
            before?.Invoke(read);
            foreach (var text in texts)
                if (Said(text.Get!(read)).FirstOrDefault(HasNone) is not null) // texts has those with a getter
                    throw new JsonException($"'{text.Name}' has {Sentence}");
        };
    }

    /// <summary>Of an address's query.</summary>
    public static void UseWholeTexts(this WebApplication app) =>
        app.Use(
            async (http, next) =>
            {
                if (http.Request.QueryString.Value?.Contains("%00", StringComparison.Ordinal) == true)
                    await TypedResults.Problem($"The address has {Sentence}", statusCode: 400, title: "Not readable").ExecuteAsync(http);
                else
                    await next(http);
            }
        );

    private const string Sentence = EndOfText.Sentence;

    private static bool IsText(Type type) => type == typeof(string) || typeof(IEnumerable<string>).IsAssignableFrom(type);

    private static IEnumerable<string?> Said(object? value) =>
        value switch
        {
            string one => [one],
            IEnumerable<string> many => many,
            _ => [],
        };

    private static bool HasNone(string? text) => text?.Contains(EndOfText.Character) == true;
}
