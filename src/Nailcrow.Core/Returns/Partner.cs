using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns;

[JsonConverter(typeof(KebabEnum<PartnerKind>))]
public enum PartnerKind
{
    Carrier,
    Maker,

    /// <summary>A mail server, which takes what goes out to people.</summary>
    Mail,
}

/// <summary>Somebody outside to whom the service can speak: who, what they are, and where they answer. Carriers and makers are asked over
/// HTTP, a mail server over SMTP (RFC 5321).</summary>
public sealed record Partner(string Name, PartnerKind Kind, string Address);
