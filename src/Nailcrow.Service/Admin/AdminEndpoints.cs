using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Admin;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Procedures;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Admin;

/// <summary>Care of what is kept.</summary>
internal static class AdminEndpoints
{
    public static void MapAdmin(this WebApplication app)
    {
        var admin = app.MapGroup("/api/admin").WithTags("Admin").Takes(Permission.KeepHouse);
        admin.MapPost("/reference", Load).WithName("LoadReference");
        admin.MapPost("/rebuild-projections", Rebuild).WithName("RebuildProjections");
        admin.MapPost("/seal", MakeSeal).WithName("Seal");
        admin.MapGet("/nodes", Nodes).WithName("Nodes");
        admin.MapVerify();
        admin.MapBackup();
    }

    internal static async Task<Results<Ok<Loaded>, ProblemHttpResult>> Load(
        Sent<ReferenceData> sent,
        ReferenceChanging changing,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var data = sent.Message;
        var words = data.Models.SelectMany(ModelWords.Problems);
        var problems = await changing.LoadAsync(data, person.ToActor().Name, ct, words);
        return problems.Count == 0
            ? TypedResults.Ok(new Loaded(data.Models.Count, data.Sites.Count, data.Appliances.Count))
            : Refusals.Unusable($"Nothing was loaded. {string.Join(" ", problems.Take(20))}");
    }

    internal static async Task<Ok<Rebuilt>> Rebuild(Projections projections, CancellationToken ct) =>
        TypedResults.Ok(new Rebuilt(await projections.RebuildAsync(ct)));

    /// <summary>The services that work on this record, and what each of them does over time for all.</summary>
    internal static async Task<Ok<NodeList>> Nodes(ILeases leases, CancellationToken ct) =>
        TypedResults.Ok(
            new NodeList([
                .. (await leases.NodesAsync(ct)).Select(n => new NodeView(
                    n.Name,
                    n.Release,
                    n.Since,
                    Math.Round(n.Silent.TotalSeconds, 1),
                    [.. n.Does.Select(w => Words.Of(w))],
                    n.IsThis,
                    n.TakesNoPart
                )),
            ])
        );

    /// <summary>A signed head over everything written until now, kept beside the database; copy it elsewhere.</summary>
    internal static async Task<Ok<SealMade>> MakeSeal(Seals seals, CancellationToken ct)
    {
        var made = await seals.SealAsync(ct);
        return TypedResults.Ok(new SealMade(made.Text, made.Number, made.Entries, seals.FileOf(made.Number), seals.Fingerprint));
    }
}
