using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Running;

/// <summary>Fills the fields of a move the way a front end does, knowing nothing but what the move says of them.</summary>
public static class FilledMove
{
    public static EntryBody Of(OfferedMove move, DateTimeOffset now, Random chance)
    {
        var body =
            JsonSerializer.SerializeToNode(move.Body, JournalJson.Default.EntryBody)
            ?? throw new ArgumentException("No body.", nameof(move));
        foreach (var (field, nth) in move.Fields.Select((f, i) => (f, i)))
        {
            var path = field.Name.Split('.');
            var part = path[..^1]
                .Aggregate(
                    body,
                    (at, name) => at[name] ?? throw new InvalidOperationException($"{move.Move}: nothing is at '{field.Name}'.")
                );
            part[path[^1]] = Value(field, now.AddHours(nth + 1), chance);
        }
        return body.Deserialize(JournalJson.Default.EntryBody) ?? throw new InvalidOperationException($"{move.Move}: no body.");
    }

    private static JsonNode? Value(MoveField field, DateTimeOffset later, Random chance)
    {
        if (!field.Required && chance.Next(2) == 0)
            return null;
        return field.Kind switch
        {
            FieldKind.Ticket => JsonValue.Create(
                long.Parse(field.Choices?.FirstOrDefault()?.Value ?? $"{1002 + chance.Next(1_000_000_000)}", CultureInfo.InvariantCulture)
            ),
            FieldKind.Bytes => JsonValue.Create(long.Parse(field.Value ?? "12000138625024", CultureInfo.InvariantCulture)),
            FieldKind.Flag => JsonValue.Create(true),
            FieldKind.Number => JsonValue.Create(chance.Next(1, 90)),
            FieldKind.Choice when field.Choices is { } choices => JsonValue.Create(choices[chance.Next(choices.Count)].Value),
            FieldKind.Person => JsonValue.Create(field.Except == "ilka" ? "tamsel" : "ilka"),
            FieldKind.Serial => JsonValue.Create($"C8NEW{chance.Next(100_000):00000}"),
            FieldKind.Day => JsonValue.Create(later.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)),
            FieldKind.Time => JsonValue.Create(later),
            _ => JsonValue.Create(field.Name == "bay" ? "2" : "As agreed with the porter."),
        };
    }
}
