using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;

namespace Nailcrow.Service.Host.Answers;

/// <summary>How the interface reads and writes its messages.</summary>
internal static class WireJson
{
    public static void Configure(JsonSerializerOptions json)
    {
        json.TypeInfoResolverChain.Insert(0, ContractJson.Default.WithAddedModifier(NoHoles.In).WithAddedModifier(WholeTexts.In));
        json.NumberHandling = JsonNumberHandling.Strict;
        json.AllowOutOfOrderMetadataProperties = true;
        json.RespectNullableAnnotations = true;
        json.RespectRequiredConstructorParameters = true;
        json.IgnoreReadOnlyProperties = true;
        json.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow; // a misspelt field would be lost without a word
    }

    /// <summary>
    /// Has the code for the largest messages compiled on another core while the rest of the service is put together. Every kind
    /// of entry and the whole reference data are described before the first request can be routed: half of a start, done in turn.
    /// </summary>
    public static void MakeReadyBeside() =>
        _ = Task.Run(() =>
        {
            // Options that are alike share what they know of types: what is described here is there when the routes ask for it.
            var json = new Microsoft.AspNetCore.Http.Json.JsonOptions().SerializerOptions;
            Configure(json);
            json.MakeReadOnly(); // until then a type is only named, not described
            _ = json.GetTypeInfo(typeof(EntryAsk));
            _ = json.GetTypeInfo(typeof(ReferenceData));
        });
}
