using System.Text.Json;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Returns.Supplies;

/// <summary>A line of the ledger about a supply as it is kept and hashed: RFC 8785 canonical JSON, made once.</summary>
public static class SupplyText
{
    public static string Of(SupplyMove move) => CanonicalJson.Of(JsonSerializer.SerializeToElement(move, JournalJson.Default.SupplyMove));

    /// <summary>What a text says; null where this version cannot read it.</summary>
    public static SupplyMove? Read(string text)
    {
        try
        {
            return JsonSerializer.Deserialize(text, JournalJson.Default.SupplyMove);
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
