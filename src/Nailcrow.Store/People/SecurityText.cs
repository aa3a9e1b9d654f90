using System.Text.Json;
using System.Text.Json.Serialization;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Store.People;

/// <summary>A line of the security log as it is kept and hashed: RFC 8785 canonical JSON, made once.</summary>
internal static class SecurityText
{
    public static string Of(SecurityLine line) =>
        CanonicalJson.Of(
            JsonSerializer.SerializeToElement(
                new Written(line.At, line.By, line.What, line.About, line.Address, line.Detail),
                SecurityJson.Default.Written
            )
        );

    /// <summary>What a row says; null where this version cannot read it.</summary>
    public static SecurityLine? Read(long seq, string text)
    {
        try
        {
            return JsonSerializer.Deserialize(text, SecurityJson.Default.Written) is { } said
                ? new(seq, said.At, said.By, said.What, said.About, said.Address, said.Detail)
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>A line without the number that it is given as it comes in.</summary>
    internal sealed record Written(DateTimeOffset At, string By, SecurityEvent What, string? About, string? Address, string? Detail);
}

[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull
)]
[JsonSerializable(typeof(SecurityText.Written))]
internal sealed partial class SecurityJson : JsonSerializerContext;
