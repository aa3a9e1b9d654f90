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
