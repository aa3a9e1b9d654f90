using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Nailcrow.Appliances;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Appliances.Reaching;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Intake;

namespace Nailcrow.Service.Appliances;

internal static class AppliancesEndpoints
{
    private const int OnAPage = 100;
    private const int MostWaiting = 2_000;

    public static void AddAppliances(this WebApplicationBuilder builder)
    {
        builder.Services.AddSingleton<SecretFiles>().AddSingleton<IMachineKeys, MachineKeys>();
        builder.Services.AddApplianceLinks(SettingsRead.Of<LinkSettings>(builder.Configuration, "Nailcrow:Link", link => link.Problems()));
    }

    public static void MapAppliances(this WebApplication app)
    {
        var appliances = app.MapGroup("/api/appliances").WithTags("Appliances");
        appliances.MapGet("/", List).WithName("ListAppliances");
        appliances.MapGet("/{asset}", Show).WithName("ShowAppliance");
        appliances.MapPost("/", Add).WithName("AddAppliance").Takes(Permission.AddMachines);
        app.MapGet("/api/sites", Sites).WithTags("Appliances").WithName("ListSites");
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

    internal static async Task<Ok<SiteList>> Sites(ReferenceBook book, CancellationToken ct) =>
        TypedResults.Ok(new SiteList([.. (await book.SitesAsync(ct)).Values.OrderBy(s => s.Name, StringComparer.Ordinal)]));

    /// <summary>A machine that nobody knew, from what its plate says, with its site where that is new as well. What is known is changed elsewhere.</summary>
    internal static async Task<Results<Ok<MachineAdded>, ProblemHttpResult>> Add(
        Sent<MachineAsk> sent,
        ReferenceBook book,
        ReferenceChanging changing,
        IntakeLog log,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (MachinePlate.ProblemOfNew(ask.Appliance, ask.Site, ask.Customer) is { } no)
            return Refusals.Unusable(no);
        if (await changing.AddAsync(ask.Appliance, ask.Site, ask.Customer, person.ToActor().Name, ct) is { } refused)
            return Refusals.Refused(refused);
        var added = await book.FindAsync(ask.Appliance.Asset, ct) ?? throw new InvalidOperationException("It was added just now.");
        var waiting = await log.ListAsync([IntakeOutcome.UnknownSender, IntakeOutcome.Unmatched], MostWaiting, ct);
        return TypedResults.Ok(
            new MachineAdded(
                View(added),
                waiting.Count(i => string.Equals(i.Asset, added.Appliance.Asset, StringComparison.OrdinalIgnoreCase))
            )
        );
    }

    internal static async Task<Results<Ok<ApplianceView>, ProblemHttpResult>> Replace(
        string asset,
        Sent<Appliance> sent,
        ReferenceBook book,
        ReferenceChanging changing,
        ClaimsPrincipal person,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        CancellationToken ct
    )
    {
        var appliance = sent.Message;
        if (!long.TryParse(ifMatch?.Trim('"'), out var seen))
            return TypedResults.Problem(
                "Send If-Match with the version you saw, so that nobody's change is lost.",
                statusCode: 428,
                title: "Version needed"
            );
        if (await book.FindAsync(asset, ct) is not { } known)
            return Unknown(asset);
        var changed = appliance with { Asset = known.Appliance.Asset };
        var sites = (await book.SitesAsync(ct)).Keys.ToHashSet();
        var problems = new ReferenceData([known.Model], [], [changed]).Problems(new HashSet<string>(), sites);
        if (MachinePlate.Problem(changed) is { } missing)
            return Refusals.Unusable(missing);
        if (problems.FirstOrDefault() is { } problem)
            return Refusals.Unusable(problem);
        return
            await changing.ReplaceAsync(changed, seen, person.ToActor().Name, ct) is not null && await book.FindAsync(asset, ct) is { } now
            ? TypedResults.Ok(View(now))
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
            Parsed<MachineLook>.Ok(var look) => TypedResults.Ok(Told(look.Snapshot.WithUntold(known.Labels), look.LocatorOn)),
            Parsed<MachineLook>.Refused(var reason) => Refusals.Unreachable(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };
    }

    private static ApplianceView View(KnownAppliance known) =>
        new(
            known.Appliance,
            known.Site,
            known.Customer,
            known.Model,
            known.Drawing,
            known.Version,
            BlankSnapshot.Of(known.Appliance, known.Drawing)
        );

    private static BaysView Told(Snapshot snapshot, bool? locatorOn) => new(snapshot, BayVerdict.ForAll(snapshot), locatorOn);

    internal static ProblemHttpResult Unknown(string asset) => Refusals.NotFound($"No appliance has the asset number '{asset}'.");
}
