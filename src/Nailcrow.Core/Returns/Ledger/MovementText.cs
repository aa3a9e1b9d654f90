using System.Buffers;
using System.Text;
using System.Text.Json;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>A line of the ledger as it is kept and hashed: RFC 8785 canonical JSON, made once.</summary>
public static class MovementText
{
    public static string Of(Movement movement) =>
        CanonicalJson.Of(JsonSerializer.SerializeToElement(movement, JournalJson.Default.Movement));

    /// <summary>What a text says; null where this version cannot read it.</summary>
    public static Movement? Read(string text)
    {
        var bytes = ArrayPool<byte>.Shared.Rent(Encoding.UTF8.GetMaxByteCount(text.Length));
        try
        {
            return Read(bytes.AsSpan(0, Encoding.UTF8.GetBytes(text, bytes)));
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(bytes);
        }
    }

    /// <summary>The same of a text in UTF-8, as a database keeps it: a balance makes no string of twenty million lines.</summary>
    public static Movement? Read(ReadOnlySpan<byte> text)
    {
        try
        {
            return MovementReader.Read(text) ?? JsonSerializer.Deserialize(text, JournalJson.Default.Movement);
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
