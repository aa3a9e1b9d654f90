using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Nailcrow.Appliances;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Appliances;

internal static class AppliancesEndpoints
{
    private const int OnAPage = 100;

    public static void AddAppliances(this WebApplicationBuilder builder) =>
        builder.Services.AddApplianceLinks(builder.Configuration.GetSection("Nailcrow:Link").Get<LinkSettings>() ?? new());

    public static void MapAppliances(this WebApplication app)
    {
        var appliances = app.MapGroup("/api/appliances").WithTags("Appliances");
        appliances.MapGet("/", List).WithName("ListAppliances");
        appliances.MapGet("/{asset}", Show).WithName("ShowAppliance");
        appliances.MapPut("/{asset}", Replace).WithName("ReplaceAppliance").Takes(Permission.ChangeMachines);
        appliances.MapGet("/{asset}/bays", Bays).WithName("ShowBays");
    }

    internal static async Task<Ok<AppliancePage>> List(ReferenceBook book, CancellationToken ct, string? after = null, string? find = null)
    {
        var found = await book.ListAsync(after, string.IsNullOrWhiteSpace(find) ? null : find, OnAPage + 1, ct);
        var page = found.Take(OnAPage).Select(View).ToList();
        return TypedResults.Ok(new AppliancePage(page, found.Count > OnAPage ? page[^1].Appliance.Asset : null));
    }

    internal static async Task<Results<Ok<ApplianceView>, ProblemHttpResult>> Show(
        string asset,
        ReferenceBook book,
        HttpContext http,
        CancellationToken ct
    )
    {
        if (await book.FindAsync(asset, ct) is not { } known)
            return Unknown(asset);
        http.Response.Headers.ETag = $"\"{known.Version}\"";
        return TypedResults.Ok(View(known));
    }

    internal static async Task<Results<Ok<ApplianceView>, ProblemHttpResult>> Replace(
        string asset,
        Appliance appliance,
        ReferenceBook book,
        ReferenceChanging changing,
        ClaimsPrincipal person,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        CancellationToken ct
    )
    {
        if (!long.TryParse(ifMatch?.Trim('"'), out var seen))
            return TypedResults.Problem(
                "Send If-Match with the version you saw, so that nobody's change is lost.",
                statusCode: 428,
                title: "Version needed"
            );
        if (await book.FindAsync(asset, ct) is not { } known)
            return Unknown(asset);
        var changed = appliance with { Asset = known.Appliance.Asset };
        if (
            new ReferenceData([known.Model], [known.Site], [changed])
                .Problems(new HashSet<string>(), new HashSet<string>())
                .FirstOrDefault() is
            { } problem
        )
            return Refusals.Unusable(problem);
        return await changing.ReplaceAsync(changed, seen, person.ToActor().Name, ct) is { } version
            ? TypedResults.Ok(View(known with { Appliance = changed, Version = version }))
            : TypedResults.Problem(
                $"{asset} was changed by somebody else; read it again and repeat the change.",
                statusCode: 412,
                title: "Changed meanwhile"
            );
    }

    internal static async Task<Results<Ok<BaysView>, ProblemHttpResult>> Bays(
        string asset,
        ReferenceBook book,
        IApplianceLink link,
        CancellationToken ct
    )
    {
        if (await book.FindAsync(asset, ct) is not { } known)
            return Unknown(asset);
        return await link.LookAsync(known.Appliance, ct) switch
        {
            Parsed<MachineLook>.Ok(var look) => TypedResults.Ok(
                new BaysView(look.Snapshot, BayVerdict.ForAll(look.Snapshot), look.LocatorOn)
            ),
            Parsed<MachineLook>.Refused(var reason) => Refusals.Unreachable(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    private static ApplianceView View(KnownAppliance known) =>
        new(known.Appliance, known.Site, known.Model, known.Drawing, known.Version, BlankSnapshot.Of(known.Appliance, known.Drawing));

    private static ProblemHttpResult Unknown(string asset) => Refusals.NotFound($"No appliance has the asset number '{asset}'.");
}
