using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Client;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;
using Nailcrow.Service.Host.OverTime;

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
    /// Has the code for the largest messages compiled once the service answers and nobody waits: every kind of entry and the whole
    /// reference data are a third of a second, for whoever sends the first of them.
    /// </summary>
    public static async Task DescribeLargestAsync(IHostApplicationLifetime life, JsonSerializerOptions json)
    {
        await life.CalmAsync(life.ApplicationStopping);
        _ = json.GetTypeInfo(typeof(EntryAsk));
        _ = json.GetTypeInfo(typeof(ReferenceData));
    }
}
