using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Core.Tickets.Journal.Correcting;

/// <summary>The ways to put one entry right, and to let go of its picture, as moves: front ends show these and decide nothing.</summary>
public static class CorrectionsOffered
{
    // Of a report who it is about stands; of an answer where it was given; of a part where it went is another hand-over.
    private static readonly string[] NotSaidOtherwise =
    [
        "asset",
        "chassisSerial",
        "model",
        "customer",
        "site",
        "location",
        "seenOn",
        "step",
        "photo",
        "mediaType",
    ];

    private const int LongText = 4_000;

    private static readonly string[] Lines = ["text", "symptom", "says", "statement", "method", "note", "answer", "overruledBecause"];

    public static IReadOnlyList<OfferedMove> On(TicketRecord record, Entry entry, Actor actor) =>
        [.. Removal(record, entry, actor), .. Corrections(record, entry, actor)];

    /// <summary>Its picture goes for good: offered wherever one came with it.</summary>
    private static IEnumerable<OfferedMove> Removal(TicketRecord record, Entry entry, Actor actor)
    {
        if (Swaps.Seen.PictureRemoved.PictureOf(entry.Body) is not { } photo)
            yield break;
        var body = new Swaps.Seen.PictureRemoved(photo, "");
        var whyNot =
            !actor.MayActAs(body.Writers()) ? Ruling.TakesRole(actor, body.Writers())
            : record.Ticket.PicturesRemoved.ContainsKey(photo) ? body.Refusal(record.Ticket, actor, default)
            : null;
        yield return new(
            Move.RemovePicture,
            "The picture goes for good",
            whyNot,
            MoveWay.Entry,
            body,
            [Offering.Sentence("because", "Why it may not be kept; the journal tells it instead")],
            $"{entry.Seq}"
        );
    }

    private static IReadOnlyList<OfferedMove> Corrections(TicketRecord record, Entry entry, Actor actor)
    {
        var whyNot = Correctable.WhyNot(entry, actor);
        var because = Offering.Sentence("because", "Why; the report tells it");
        var counts = record.Corrections.AsItCounts(entry);
        var body = counts.Body is Struck ? entry.Body : counts.Body;
        var notSo = new OfferedMove(
            Move.NotSo,
            "It was not so",
            whyNot ?? Correctable.WhyItStands(record, entry),
            MoveWay.Entry,
            new EntryCorrected(entry.Id, ""),
            [because],
            $"{entry.Seq}"
        );
        if (whyNot is not null || body is EntryCorrected)
            return [notSo];
        var fields = FieldsOf(body).ToList();
        return
        [
            .. fields.Count == 0
                ? Array.Empty<OfferedMove>()
                :
                [
                    new(
                        Move.PutRight,
                        "It was so",
                        null,
                        MoveWay.Entry,
                        // The last correction is the one that counts: a time that was put right before goes along.
                        new EntryCorrected(entry.Id, "", body, counts.Happened == entry.Happened ? null : counts.Happened),
                        [.. fields.Select(f => f with { Name = $"instead.{f.Name}" }), because],
                        $"{entry.Seq}"
                    ),
                ],
            .. body is Swaps.Following.Answering.StepAnswered or Swaps.Seen.SnapshotTaken
                ? Array.Empty<OfferedMove>()
                :
                [
                    new(
                        Move.OtherTime,
                        "It was at another time",
                        null,
                        MoveWay.Entry,
                        new EntryCorrected(
                            entry.Id,
                            "",
                            counts.Body is Struck ? body
                                : counts.Body == entry.Body ? null
                                : counts.Body,
                            counts.Happened
                        ),
                        [new("happenedAt", "When it happened", FieldKind.Time, Value: Said(counts.Happened)), because],
                        $"{entry.Seq}"
                    ),
                ],
            notSo,
        ];
    }

    private static IEnumerable<MoveField> FieldsOf(EntryBody body) =>
        !Correctable.IsSeenAgain(body) && JournalJson.Default.GetTypeInfo(body.GetType()) is { } type
            ? type.Properties.Where(p => p.Get is not null && !NotSaidOtherwise.Contains(p.Name)).SelectMany(p => FieldsOf(p, body))
            : [];

    private static IEnumerable<MoveField> FieldsOf(JsonPropertyInfo property, EntryBody body)
    {
        var value = property.Get?.Invoke(body);
        var (name, kind) = (property.Name, KindOf(property));
        if (value is Holder holder)
            yield return new($"{name}.name", $"{Label(name)}: name of the {Words.Of(holder.Kind)}", Value: holder.Name);
        else if (kind is { } known)
            yield return new(
                name,
                Label(name),
                known,
                Required: false,
                Value: Said(value),
                Choices: known switch
                {
                    FieldKind.Choice => Choices(property.PropertyType),
                    FieldKind.Flag => [new("", "not said"), new("true", "yes")],
                    _ => null,
                },
                Most: known == FieldKind.Lines ? LongText : 200
            );
    }

    private static FieldKind? KindOf(JsonPropertyInfo property)
    {
        if (property.PropertyType == typeof(bool?))
            return FieldKind.Flag;
        var type = Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType;
        return type == typeof(string)
            ? property.Name.StartsWith("serial", StringComparison.Ordinal)
                ? FieldKind.Serial
                : Lines.Contains(property.Name)
                    ? FieldKind.Lines
                    : FieldKind.Text
            : type == typeof(long) || type == typeof(int)
                ? property.Name == "bytes"
                    ? FieldKind.Bytes
                    : FieldKind.Number
                : type == typeof(DateTimeOffset)
                    ? FieldKind.Time
                    : type == typeof(DateOnly)
                        ? FieldKind.Day
                        : type.IsEnum
                            ? FieldKind.Choice
                            : null;
    }

    private static IReadOnlyList<FieldChoice> Choices(Type type) =>
        [
            .. Enum.GetNames(Nullable.GetUnderlyingType(type) ?? type)
                .Select(JsonNamingPolicy.KebabCaseLower.ConvertName)
                .Select(word => new FieldChoice(word, EntryTold.Said(word))),
        ];

    private static string? Said(object? value) =>
        value switch
        {
            null => null,
            bool yes => yes ? "true" : null,
            Enum word => JsonNamingPolicy.KebabCaseLower.ConvertName(word.ToString()),
            DateTimeOffset at => at.ToString("yyyy-MM-dd'T'HH:mm:ssK", System.Globalization.CultureInfo.InvariantCulture),
            IFormattable other => other.ToString(null, System.Globalization.CultureInfo.InvariantCulture),
            _ => value.ToString(),
        };

    /// <summary><c>serialInBox</c> is "Serial in box".</summary>
    private static string Label(string name) => Words.Capital(JsonNamingPolicy.KebabCaseLower.ConvertName(name).Replace('-', ' '));
}
