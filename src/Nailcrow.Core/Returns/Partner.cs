using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns;

[JsonConverter(typeof(KebabEnum<PartnerKind>))]
public enum PartnerKind
{
    Carrier,
    Maker,
}

/// <summary>Somebody outside whom the service can ask over HTTP: who, what they are, and where they answer.</summary>
public sealed record Partner(string Name, PartnerKind Kind, string Address);
