using System.Buffers;
using System.Text;
using System.Text.Json;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>
/// Reads a line of the ledger straight from its text: a balance reads every line there is, and reading them by their types takes
/// most of its time. What is not written just as we write it is left to the types, and so is why it cannot be read.
/// </summary>
internal static class MovementReader
{
    /// <returns>Null where its types have to say what it is, if it is any.</returns>
    public static Movement? Read(string text)
    {
        var bytes = ArrayPool<byte>.Shared.Rent(Encoding.UTF8.GetMaxByteCount(text.Length));
        try
        {
            var reader = new Utf8JsonReader(bytes.AsSpan(0, Encoding.UTF8.GetBytes(text, bytes)));
            reader.Read();
            var movement = Line(ref reader);
            return reader.Read() ? null : movement;
        }
        catch (Exception no) when (no is JsonException or FormatException or InvalidOperationException)
        {
            return null;
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(bytes);
        }
    }

    private static Movement Line(ref Utf8JsonReader json)
    {
        var read = new Fields();
        Begins(ref json);
        while (Name(ref json, out var name))
            if (!read.Takes(name, ref json))
                Unknown(ref json);
        return read.Movement();
    }

    /// <summary>What was read of a line so far.</summary>
    private struct Fields
    {
        private Guid? _id;
        private Guid? _entry;
        private Guid? _of;
        private string? _serial;
        private string? _by;
        private string? _asset;
        private string? _note;
        private MovementKind? _kind;
        private DateTimeOffset? _at;
        private DateTimeOffset _recordedAt;
        private Holder? _to;
        private long? _ticket;
        private long _seq;
        private PartData? _part;
        private Announcement? _going;
        private NoReplacement? _givenUpAs;
        private InspectionFinding? _found;
        private bool? _failed;

        public bool Takes(scoped ReadOnlySpan<byte> name, ref Utf8JsonReader json)
        {
            if (name.SequenceEqual("id"u8))
                _id = json.GetGuid();
            else if (name.SequenceEqual("serial"u8))
                _serial = Text(ref json);
            else if (name.SequenceEqual("kind"u8))
                _kind = Word<MovementKind>.Of(ref json);
            else if (name.SequenceEqual("at"u8))
                _at = json.GetDateTimeOffset();
            else if (name.SequenceEqual("by"u8))
                _by = Text(ref json);
            else if (name.SequenceEqual("to"u8))
                _to = Holding(ref json);
            else if (name.SequenceEqual("ticket"u8))
                _ticket = json.GetInt64();
            else if (name.SequenceEqual("asset"u8))
                _asset = Text(ref json);
            else if (name.SequenceEqual("entry"u8))
                _entry = json.GetGuid();
            else if (name.SequenceEqual("of"u8))
                _of = json.GetGuid();
            else if (name.SequenceEqual("part"u8))
                _part = Data(ref json);
            else if (name.SequenceEqual("going"u8))
                _going = Going(ref json);
            else if (name.SequenceEqual("note"u8))
                _note = Text(ref json);
            else if (name.SequenceEqual("givenUpAs"u8))
                _givenUpAs = Word<NoReplacement>.Of(ref json);
            else if (name.SequenceEqual("found"u8))
                _found = Word<InspectionFinding>.Of(ref json);
            else if (name.SequenceEqual("failed"u8))
                _failed = json.GetBoolean();
            else if (name.SequenceEqual("seq"u8))
                _seq = json.GetInt64();
            else if (name.SequenceEqual("recordedAt"u8))
                _recordedAt = json.GetDateTimeOffset();
            else
                return false;
            return true;
        }

        public readonly Movement Movement() =>
            new(
                _id ?? throw Missing("id"),
                _serial ?? throw Missing("serial"),
                _kind ?? throw Missing("kind"),
                _at ?? throw Missing("at"),
                _by ?? throw Missing("by"),
                _to,
                _ticket,
                _asset,
                _entry,
                _of,
                _part,
                _going,
                _note,
                _givenUpAs,
                _found,
                _failed
            )
            {
                Seq = _seq,
                RecordedAt = _recordedAt,
            };
    }

    private static Holder Holding(ref Utf8JsonReader json)
    {
        HolderKind? kind = null;
        string? called = null,
            shelf = null;
        Begins(ref json);
        while (Name(ref json, out var name))
            if (name.SequenceEqual("kind"u8))
                kind = Word<HolderKind>.Of(ref json);
            else if (name.SequenceEqual("name"u8))
                called = Text(ref json);
            else if (name.SequenceEqual("shelf"u8))
                shelf = Text(ref json);
            else
                Unknown(ref json);
        return new(kind ?? throw Missing("kind"), called ?? throw Missing("name"), shelf);
    }

    private static PartData Data(ref Utf8JsonReader json)
    {
        string? model = null,
            usedIn = null;
        long? bytes = null;
        int? hours = null;
        Begins(ref json);
        while (Name(ref json, out var name))
            if (name.SequenceEqual("model"u8))
                model = Text(ref json);
            else if (name.SequenceEqual("bytes"u8))
                bytes = json.GetInt64();
            else if (name.SequenceEqual("hours"u8))
                hours = json.GetInt32();
            else if (name.SequenceEqual("usedIn"u8))
                usedIn = Text(ref json);
            else
                Unknown(ref json);
        return new(model ?? throw Missing("model"), bytes ?? throw Missing("bytes"), hours, usedIn);
    }

    private static Announcement Going(ref Utf8JsonReader json)
    {
        Holder? to = null;
        DateOnly? dueBy = null;
        string? authorisation = null,
            reason = null;
        Begins(ref json);
        while (Name(ref json, out var name))
            if (name.SequenceEqual("to"u8))
                to = Holding(ref json);
            else if (name.SequenceEqual("dueBy"u8))
                dueBy = DateOnly.ParseExact(Text(ref json), "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
            else if (name.SequenceEqual("authorisation"u8))
                authorisation = Text(ref json);
            else if (name.SequenceEqual("reason"u8))
                reason = Text(ref json);
            else
                Unknown(ref json);
        return new(to ?? throw Missing("to"), dueBy, authorisation, reason);
    }

    private static void Begins(ref Utf8JsonReader json)
    {
        if (json.TokenType != JsonTokenType.StartObject)
            throw new JsonException("It is no object.");
    }

    /// <summary>On to the value of the next name; false at the object's end.</summary>
    private static bool Name(ref Utf8JsonReader json, out ReadOnlySpan<byte> name)
    {
        name = default;
        if (!json.Read() || json.TokenType != JsonTokenType.PropertyName)
            return false;
        name = json.ValueIsEscaped ? throw new JsonException("We write no name like that.") : json.ValueSpan;
        return json.Read();
    }

    private static string Text(ref Utf8JsonReader json) => json.GetString() ?? throw new JsonException("A word is missing.");

    private static void Unknown(ref Utf8JsonReader json) => json.Skip();

    private static JsonException Missing(string what) => new($"'{what}' is missing.");

    /// <summary>The words of an enum as they are written, so that none has to be made a string first.</summary>
    private static class Word<T>
        where T : struct, Enum
    {
        private static readonly (byte[] Written, T Value)[] Known =
        [
            .. Enum.GetValues<T>().Select(value => (Encoding.UTF8.GetBytes(Words.Of(value)), value)),
        ];

        public static T Of(ref Utf8JsonReader json)
        {
            foreach (var (written, value) in Known)
                if (json.ValueTextEquals(written))
                    return value;
            throw new JsonException("It is no word that this version knows.");
        }
    }
}
