using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Supplies;

namespace Nailcrow.Core.Tickets.Journal.Canonical;

/// <summary>How entries are written as JSON, without reflection, so that the command line can be compiled ahead of time.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    AllowOutOfOrderMetadataProperties = true,
    RespectNullableAnnotations = true,
    RespectRequiredConstructorParameters = true,
    IgnoreReadOnlyProperties = true, // what is computed from the rest is no part of the record
    NumberHandling = JsonNumberHandling.Strict,
    Converters = [typeof(EntryConverter)]
)]
[JsonSerializable(typeof(Entry))]
[JsonSerializable(typeof(EntryBody))]
[JsonSerializable(typeof(JsonNode))]
[JsonSerializable(typeof(Dictionary<string, string>))]
[JsonSerializable(typeof(Snapshot))]
[JsonSerializable(typeof(RunSheet))]
[JsonSerializable(typeof(ApplianceModel))]
[JsonSerializable(typeof(Site))]
[JsonSerializable(typeof(Customer))]
[JsonSerializable(typeof(Appliance))]
[JsonSerializable(typeof(ArrayDesign[]))]
[JsonSerializable(typeof(Expansion[]))]
[JsonSerializable(typeof(DriveModel))]
[JsonSerializable(typeof(IntakeRule))]
[JsonSerializable(typeof(Alert))]
[JsonSerializable(typeof(ReferenceData))]
[JsonSerializable(typeof(Movement))]
[JsonSerializable(typeof(SupplyMove))]
public sealed partial class JournalJson : JsonSerializerContext;
