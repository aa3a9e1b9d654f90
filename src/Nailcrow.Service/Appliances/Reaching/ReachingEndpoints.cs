using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Appliances;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances;

namespace Nailcrow.Service.Appliances.Reaching;

/// <summary>How machines are come into, and whether they can be.</summary>
internal static class ReachingEndpoints
{
    private const int OnAPage = 100;
    private const int MostOfAName = 100;
    private const int MostOfASecret = 200;

    public static void MapReaching(this WebApplication app)
    {
        app.MapGet("/api/certificates", Waiting).WithTags("Appliances").WithName("ListCertificates").Takes(Permission.ReachMachines);
        var one = app.MapGroup("/api/appliances/{asset}").WithTags("Appliances");
        one.MapPost("/try", Try).WithName("TryMachine").OneEach();
        one.MapGet("/access", Show).WithName("ShowAccess").Takes(Permission.ReachMachines);
        one.MapPut("/sign-in", Give)
            .WithName("GiveSignIn")
            .Takes(Permission.ReachMachines)
            .Logged(SecurityEvent.MachineSignInGiven, "asset");
        one.MapDelete("/sign-in", TakeAway)
            .WithName("TakeSignInAway")
            .Takes(Permission.ReachMachines)
            .Logged(SecurityEvent.MachineSignInTakenAway, "asset");
        one.MapPut("/certificate", Trust)
            .WithName("TrustCertificate")
            .Takes(Permission.ReachMachines)
            .Logged(SecurityEvent.MachineTrusted, "asset");
    }

    /// <summary>Machines that showed a certificate which nobody said yes to; nothing is sent to them until somebody does.</summary>
    internal static async Task<Ok<WaitingMachines>> Waiting(MachineAccesses accesses, CancellationToken ct, string? after = null)
    {
        var found = await accesses.WaitingAsync(after, OnAPage + 1, ct);
        return TypedResults.Ok(new WaitingMachines([.. found.Take(OnAPage)], found.Count > OnAPage ? found[OnAPage - 1] : null));
    }

    /// <summary>Reads the machine as every look does, and says step by step what answered and what was made of it.</summary>
    internal static async Task<Results<Ok<Trial>, ProblemHttpResult>> Try(
        string asset,
        ReferenceBook book,
        IApplianceLink link,
        CancellationToken ct
    )
    {
        if (await book.FindAsync(asset, ct) is not { Appliance: var appliance })
            return AppliancesEndpoints.Unknown(asset);
        var steps = await link.TryAsync(appliance, ct);
        return TypedResults.Ok(new Trial(appliance.Asset, steps.All(s => s.Ok), steps));
    }

    internal static async Task<Results<Ok<MachineAccessView>, ProblemHttpResult>> Show(
        string asset,
        ReferenceBook book,
        MachineAccesses accesses,
        CancellationToken ct
    ) =>
        await book.FindAsync(asset, ct) is { Appliance: var appliance }
            ? TypedResults.Ok(await ViewAsync(appliance, accesses, ct))
            : AppliancesEndpoints.Unknown(asset);

    /// <summary>Whom to sign in as from now on; what was given before is forgotten.</summary>
    internal static async Task<Results<Ok<MachineAccessView>, ProblemHttpResult>> Give(
        string asset,
        Sent<MachineSignInAsk> sent,
        ReferenceBook book,
        MachineAccesses accesses,
        SecretFiles files,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await book.FindAsync(asset, ct) is not { Appliance: var appliance })
            return AppliancesEndpoints.Unknown(asset);
        if (appliance.Address is not { } address)
            return Refusals.Unusable($"{appliance.Asset} has no management address; put its record right first.");
        var ofFile = ask.SecretFile is { } file ? files.Problem(file) : null;
        if ((MachineAddress.ProblemOfSecrets(new(address)) ?? Problem(ask) ?? ofFile) is { } no)
            return Refusals.Unusable(no);
        await accesses.GiveAsync(
            appliance.Asset,
            new(MachineAddress.Origin(new(address)), ask.Name, ask.Way, ask.Secret, ask.SecretFile),
            person.ToActor().Name,
            ct
        );
        return TypedResults.Ok(await ViewAsync(appliance, accesses, ct));
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> TakeAway(
        string asset,
        ReferenceBook book,
        MachineAccesses accesses,
        CancellationToken ct
    ) =>
        await book.FindAsync(asset, ct) is not { Appliance: var appliance } ? AppliancesEndpoints.Unknown(asset)
        : await accesses.TakeAwayAsync(appliance.Asset, ct) ? TypedResults.NoContent()
        : Refusals.NotFound($"{appliance.Asset} has no sign-in; it is asked as anybody.");

    /// <summary>Says yes to the certificate that a machine showed, after it was compared with the machine's own screen.</summary>
    internal static async Task<Results<Ok<MachineAccessView>, ProblemHttpResult>> Trust(
        string asset,
        Sent<TrustAsk> sent,
        ReferenceBook book,
        MachineAccesses accesses,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (await book.FindAsync(asset, ct) is not { Appliance: var appliance })
            return AppliancesEndpoints.Unknown(asset);
        if (ShownCertificate.Fingerprint(ask.Sha256) is not { } print)
            return Refusals.Unusable($"'{Visible.Text(ask.Sha256)}' is no SHA-256: 64 hexadecimal digits, with or without colons.");
        if (await accesses.TrustAsync(appliance.Asset, print, person.ToActor().Name, ct))
            return TypedResults.Ok(await ViewAsync(appliance, accesses, ct));
        var access = await accesses.OfAsync(appliance.Asset, ct);
        return access.Trusted?.Certificate.Sha256 == print ? TypedResults.Ok(View(appliance, access)) // said twice
            : access.Offered is { } other
                ? Refusals.Refused($"{appliance.Asset} showed another certificate last: {other.Certificate.Pairs}. Compare that one.")
            : Refusals.Refused($"{appliance.Asset} has shown no certificate that waits for a yes; try it first.");
    }

    private static string? Problem(MachineSignInAsk ask) =>
        ask.Name.Trim().Length is 0 or > MostOfAName || ask.Name.Any(char.IsControl) || ask.Name.Contains(':')
            ? $"A name to sign in by has 1 to {MostOfAName} characters, and no colon."
        : ask.Secret is null == ask.SecretFile is null ? "Give either the secret, or the file it is in."
        : ask.Secret is { } secret && (secret.Length is 0 or > MostOfASecret || secret.Any(char.IsControl))
            ? $"A secret has 1 to {MostOfASecret} characters that one can type."
        : null;

    private static async Task<MachineAccessView> ViewAsync(Appliance appliance, MachineAccesses accesses, CancellationToken ct) =>
        View(appliance, await accesses.OfAsync(appliance.Asset, ct));

    private static MachineAccessView View(Appliance appliance, MachineAccess access) =>
        new(
            appliance.Asset,
            appliance.Address,
            access.SignIn is { } signIn ? new(signIn.Name, signIn.Way, signIn.SecretFile, signIn.By, signIn.At) : null,
            access.Trusted is { } trusted ? new(trusted.Certificate, trusted.Certificate.Pairs, trusted.By, trusted.At) : null,
            access.Offered is { } offered ? new(offered.Certificate, offered.Certificate.Pairs, offered.At) : null
        );
}
