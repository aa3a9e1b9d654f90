using System.Text.Json.Serialization;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;

namespace Nailcrow.Core.Returns;

/// <summary>How what is said to carriers and makers, and by them, is written as JSON.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    RespectNullableAnnotations = true,
    RespectRequiredConstructorParameters = true,
    NumberHandling = JsonNumberHandling.Strict
)]
[JsonSerializable(typeof(BookingAsk))]
[JsonSerializable(typeof(BookingAnswer))]
[JsonSerializable(typeof(ParcelEvents))]
[JsonSerializable(typeof(ClaimAsk))]
[JsonSerializable(typeof(ClaimAnswer))]
[JsonSerializable(typeof(System.Text.Json.JsonElement))]
public sealed partial class OutsideJson : JsonSerializerContext;
