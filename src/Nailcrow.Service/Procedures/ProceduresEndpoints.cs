using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Procedures;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Swaps.Learning;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Drawing;
using Nailcrow.Procedures.Sheets;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Procedures;

namespace Nailcrow.Service.Procedures;

internal static class ProceduresEndpoints
{
    // Half a megabyte of YAML is more than all procedures that ship together.
    private const int MostCharacters = 500_000;

    public static void AddProcedures(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder.Services.AddSingleton(settings).AddSingleton<ProcedureLibrary>();
        builder.Services.AddHostedService<LibraryReading>();
    }

    public static void MapProcedures(this WebApplication app)
    {
        var procedures = app.MapGroup("/api/procedures").WithTags("Procedures");
        procedures.MapGet("/", List).WithName("ListProcedures");
        procedures
            .MapPost("/", Publish)
            .WithName("PublishProcedure")
            .Takes(Permission.PublishProcedures)
            .Logged(SecurityEvent.ProcedurePublished);
        procedures.MapGet("/{id}", Show).WithName("ShowProcedure");
        procedures
            .MapPost("/{id}/versions/{version}/withdraw", Withdraw)
            .WithName("WithdrawProcedure")
            .Takes(Permission.PublishProcedures)
            .Logged(SecurityEvent.ProcedureWithdrawn, "id");
        procedures
            .MapPost("/{id}/versions/{version}/bring-back", BringBack)
            .WithName("BringProcedureBack")
            .Takes(Permission.PublishProcedures)
            .Logged(SecurityEvent.ProcedureBroughtBack, "id");
        app.MapGet("/api/models", Models).WithTags("Appliances").WithName("ListModels");
        procedures.MapGet("/{id}/preview", Preview).WithName("PreviewProcedure");
        procedures.MapGet("/{id}/compare", Compare).WithName("CompareProcedure");
        procedures.MapGet("/{id}/times", Times).WithName("ProcedureTimes");
    }

    /// <summary>The newest version of each procedure, and files that could not be published.</summary>
    internal static async Task<Ok<ProcedureList>> List(ProcedureLibrary library, CancellationToken ct)
    {
        var (versions, refused) = await library.AllAsync(ct);
        return TypedResults.Ok(
            new ProcedureList([
                .. versions
                    .Where(v => !refused.Any(r => (r.Id, r.Version) == (v.Procedure, v.Version)))
                    .DistinctBy(v => v.Procedure)
                    .Select(View),
                .. refused,
            ])
        );
    }

    internal static async Task<Results<Ok<ProcedureView>, ProblemHttpResult>> Publish(
        Sent<PublishAsk> sent,
        ProcedureLibrary library,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (!ask.Files.ContainsKey(ask.File))
            return Refusals.Unusable($"'{ask.File}' is not among the files that were sent.");
        if (ask.Files.Sum(f => f.Value.Length) > MostCharacters)
            return Refusals.Unusable(
                $"The files have more than {MostCharacters} characters together; send the procedure with the skeleton and fragments that it uses."
            );
        var view = await library.PublishAsync(ask.File, ask.Files, ask.Trusting, person.ToActor().Name, ct);
        return !view.IsProved
                ? Refusals.Unusable(
                    "Nothing unproved is published. "
                        + string.Join(" ", view.Problems.Select(p => $"{p}").Concat(view.Findings.Select(f => $"{f}")).Take(5))
                )
            : view.Published is null ? Refusals.Refused(NotRead(view))
            : view.Withdrawn is { } because
                ? Refusals.Refused(
                    $"This very text is {view.Id} {view.Version}, published by {view.PublishedBy} on {view.Published:yyyy-MM-dd}, and was withdrawn: "
                        + $"{because} Nothing is changed by publishing it again; bring that version back, or change the text."
                )
            : TypedResults.Ok(view);
    }

    /// <summary>Proved, and whoever publishes has not said that they read what no proof can know.</summary>
    private static string NotRead(ProcedureView view) =>
        $"{view.Id} is proved, and takes {view.Trusted?.Count ?? 0} things on trust that no proof can know; whoever publishes it answers for them. "
        + $"Read them ('nailcrow procedure check' lists them) and send 'trusting' with {view.Trusting}.";

    internal static async Task<Results<Ok<ProcedurePage>, ProblemHttpResult>> Show(
        string id,
        ProcedureLibrary library,
        CancellationToken ct,
        string? version = null
    )
    {
        if (await library.FindAsync(id, version, ct) is not { } published)
            return Unknown(id, version);
        var procedure = Proved.Read(published);
        var versions = new List<VersionView>();
        foreach (var v in (await library.AllAsync(ct)).Versions.Where(v => v.Procedure == id))
            versions.Add(
                new(
                    v.Version,
                    v.PublishedAt,
                    v.PublishedBy,
                    v.States,
                    v.WithdrawnAt,
                    v.WithdrawnBy,
                    v.WithdrawnBecause,
                    await library.NoLongerAsync(id, v.Version, ct),
                    v.Earlier
                )
            );
        return TypedResults.Ok(
            new ProcedurePage(
                id,
                procedure.Title,
                procedure.Version,
                procedure.ComesBack,
                $"{procedure.AppliesTo}",
                procedure.ByName,
                versions,
                [
                    .. procedure.Steps.Select(s => new WrittenStepView(
                        s.Step,
                        s.When == Core.Procedures.Conditions.Condition.Always ? null : $"{s.When}",
                        s.Demanded,
                        s.At.File,
                        s.At.Line
                    )),
                ],
                StepDrawing.Svg(procedure),
                Trusting.Of(procedure)
            )
        );
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> Withdraw(
        string id,
        string version,
        Sent<WithdrawAsk> sent,
        ProcedureLibrary library,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (string.IsNullOrWhiteSpace(ask.Because))
            return Refusals.Unusable("Say why it is withdrawn; everybody who is on it is told.");
        return await library.WithdrawAsync(id, version, person.ToActor().Name, ask.Because, ct)
            ? TypedResults.NoContent()
            : Unknown(id, version);
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> BringBack(
        string id,
        string version,
        Sent<WithdrawAsk> sent,
        ProcedureLibrary library,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if (string.IsNullOrWhiteSpace(ask.Because))
            return Refusals.Unusable("Say why it is brought back: what it was withdrawn for is no longer so, or never was.");
        if (await library.BringBackAsync(id, version, person.ToActor().Name, ask.Because, ct))
            return TypedResults.NoContent();
        return await library.FindAsync(id, version, ct) is null
            ? Unknown(id, version)
            : Refusals.Refused($"{id} {version} is not withdrawn.");
    }

    internal static async Task<Ok<IReadOnlyList<ApplianceModel>>> Models(ReferenceBook book, CancellationToken ct) =>
        TypedResults.Ok(await book.ModelsAsync(ct));

    /// <summary>The sheet as it would be for a model, with made-up serials.</summary>
    internal static async Task<Results<Ok<RunSheet>, ProblemHttpResult>> Preview(
        string id,
        string model,
        ProcedureLibrary library,
        ReferenceBook book,
        CancellationToken ct,
        string? version = null,
        int drives = 1
    )
    {
        if (await library.FindAsync(id, version, ct) is not { } published)
            return Unknown(id, version);
        if (await book.ModelAsync(model, ct) is not { } known)
            return Refusals.NotFound($"There is no model '{model}'.");
        var procedure = Proved.Read(published);
        return SheetCompiler
            .Compile(procedure, SampleFacts.For(procedure, known, Math.Clamp(drives, 1, ApplianceModel.MostBays)), Guid.Empty)
            .Is(out var sheet, out var reason)
            ? TypedResults.Ok(sheet)
            : Refusals.Refused(reason);
    }

    internal static async Task<Results<Ok<VersionDifference>, ProblemHttpResult>> Compare(
        string id,
        string before,
        string after,
        ProcedureLibrary library,
        CancellationToken ct
    )
    {
        if (await library.FindAsync(id, before, ct) is not { } old)
            return Unknown(id, before);
        return await library.FindAsync(id, after, ct) is { } now
            ? TypedResults.Ok(new VersionDifference(id, before, after, VersionComparison.Between(Proved.Read(old), Proved.Read(now))))
            : Unknown(id, after);
    }

    /// <summary>In the order of the newest version; steps that it has not any more come last.</summary>
    internal static async Task<Results<Ok<TimesView>, ProblemHttpResult>> Times(
        string id,
        ProcedureLibrary library,
        StepTimes times,
        CancellationToken ct
    )
    {
        if (await library.FindAsync(id, null, ct) is not { } published)
            return Unknown(id, null);
        var order = Proved.Read(published);
        var visits = await times.OfAsync(id, ct);
        return TypedResults.Ok(
            new TimesView(
                id,
                visits.Select(v => v.Ticket).Distinct().Count(),
                [
                    .. StepTiming
                        .Of(visits)
                        .OrderBy(t => order.IndexOf(t.Step) is var at && at < 0 ? int.MaxValue : at)
                        .Select(StepTimingView.Of),
                ]
            )
        );
    }

    private static ProcedureView View(PublishedProcedure published)
    {
        var procedure = Proved.Read(published);
        return new(
            published.File,
            procedure.Id,
            procedure.Title,
            procedure.Version,
            procedure.Steps.Count,
            [],
            [],
            published.States,
            procedure.ComesBack,
            $"{procedure.AppliesTo}",
            published.PublishedAt,
            published.PublishedBy,
            published.WithdrawnBecause,
            procedure.ByName
        );
    }

    private static ProblemHttpResult Unknown(string id, string? version) =>
        Refusals.NotFound(version is null ? $"There is no procedure '{id}'." : $"There is no version '{version}' of '{id}' that stands.");
}
