using Nailcrow.Client.Procedures;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Language;
using Nailcrow.Service.Host;
using Nailcrow.Store;
using Nailcrow.Store.Procedures;

namespace Nailcrow.Service.Procedures;

/// <summary>
/// What may be used: every version that was published and not withdrawn. What ships in the folder is proved and published
/// when first seen; nothing unproved ever is.
/// </summary>
internal sealed class ProcedureLibrary(
    ServiceSettings settings,
    ProcedureVersions versions,
    TimeProvider time,
    ILogger<ProcedureLibrary> log
)
{
    public const string Shipped = "nailcrow";

    // Another node publishes and withdraws as well; whoever is on a run learns of it within this time.
    private static readonly TimeSpan LookAgain = TimeSpan.FromSeconds(5);

    private readonly SemaphoreSlim _one = new(1, 1);
    private Shelved? _shelved;

    /// <summary>The newest standing version of each procedure.</summary>
    public async Task<IReadOnlyList<Procedure>> UsableAsync(CancellationToken ct) => (await ShelvedAsync(ct)).Usable;

    /// <summary>All versions, the newest of each procedure first, and what could not be published, or is used no longer, with why.</summary>
    public async Task<(IReadOnlyList<PublishedProcedure> Versions, IReadOnlyList<ProcedureView> Refused)> AllAsync(CancellationToken ct)
    {
        var shelved = await ShelvedAsync(ct);
        return (shelved.Versions, [.. shelved.Refused, .. shelved.NoLonger]);
    }

    /// <summary>What today's proof finds in a version that was proved under earlier rules; null where it stands.</summary>
    public async Task<string?> NoLongerAsync(string procedure, string version, CancellationToken ct) =>
        (await ShelvedAsync(ct)).NoLongerProved(procedure, version);

    /// <summary>What no new run gets though nobody withdrew it: whoever plans is told, and does not find out at a machine.</summary>
    public async Task<IReadOnlyList<ProcedureNotUsed>> NotUsedAsync(CancellationToken ct)
    {
        var shelved = await ShelvedAsync(ct);
        return [.. shelved.NoLonger.Concat(shelved.Refused).Select(v => new ProcedureNotUsed(v.Id, Says(v, shelved.Usable)))];
    }

    private static string Says(ProcedureView view, IReadOnlyList<Procedure> usable)
    {
        var wrong =
            view.Findings.Where(f => !f.OnlyDeclaresTooLittle).Select(f => f.Sentence).FirstOrDefault()
            ?? view.Problems.Select(p => $"{p}").Concat(view.Findings.Select(f => f.Sentence)).FirstOrDefault();
        var instead = usable.FirstOrDefault(p => p.Id == view.Id) is { } other
            ? $"Version {other.Version} is used instead"
            : "No version of it can be used";
        return view.Published is null
            ? $"{view.File} is not published: {wrong} {instead}; a lead publishes it once it is mended."
            : $"{view.Title}, version {view.Version}, is given to no new run. Today's proof refuses it: {wrong} {instead}; a lead publishes it "
                + "mended, or withdraws it.";
    }

    public async Task<PublishedProcedure?> FindAsync(string procedure, string? version, CancellationToken ct) =>
        (await ShelvedAsync(ct)).Versions.FirstOrDefault(v => v.Procedure == procedure && (version is null || v.Version == version));

    /// <summary>Why the version a sheet was made from is used no longer; null where it stands, or is not known here.</summary>
    public async Task<string?> WithdrawnBecauseAsync(RunSheet? sheet, CancellationToken ct)
    {
        if (sheet is null)
            return null;
        var shelved = await ShelvedAsync(ct);
        return shelved.Versions.FirstOrDefault(v => v.Procedure == sheet.Procedure && v.Version == sheet.Version)?.WithdrawnBecause
            ?? shelved.NoLongerProved(sheet.Procedure, sheet.Version);
    }

    /// <summary>
    /// Reads and proves a set of files, and publishes it if nothing is wrong and whoever publishes names the list of what is taken on trust.
    /// </summary>
    public async Task<ProcedureView> PublishAsync(
        string file,
        IReadOnlyDictionary<string, string> files,
        string? trusting,
        string by,
        CancellationToken ct
    )
    {
        var view = Checking.View(file, files);
        if (!view.IsProved || (view.Trusted is [_, ..] && view.Trusting != trusting?.Trim().ToLowerInvariant()))
            return view;
        // a proved view has all three
        var published = new PublishedProcedure(
            view.Id!,
            view.Version!,
            view.Title!,
            file,
            files,
            view.States,
            Prover.RulesNow,
            time.GetUtcNow(),
            by
        );
        var kept = await versions.PublishAsync(published, ct);
        await ForgetAsync();
        return view with { Published = kept.PublishedAt, PublishedBy = kept.PublishedBy, Withdrawn = kept.WithdrawnBecause };
    }

    public async Task<bool> WithdrawAsync(string procedure, string version, string by, string because, CancellationToken ct)
    {
        var withdrawn = await versions.WithdrawAsync(procedure, version, by, because, ct);
        await ForgetAsync();
        return withdrawn;
    }

    public async Task<bool> BringBackAsync(string procedure, string version, string by, string because, CancellationToken ct)
    {
        var isBack = await versions.BringBackAsync(procedure, version, by, because, ct);
        await ForgetAsync();
        return isBack;
    }

    /// <summary>Of the procedures of which no version stands, the newest that was withdrawn.</summary>
    public async Task<IReadOnlyList<(Procedure Procedure, PublishedProcedure Version)>> WithdrawnAsync(CancellationToken ct)
    {
        var shelved = await ShelvedAsync(ct);
        return
        [
            .. shelved
                .Versions.GroupBy(v => v.Procedure)
                .Where(g => g.All(v => v.WithdrawnAt is not null))
                .Select(g => (Proved.Read(g.First()), g.First())),
        ];
    }

    private async Task ForgetAsync()
    {
        await _one.WaitAsync();
        _shelved = null;
        _one.Release();
    }

    // No library's stamp, so that the next look reads it anew.
    private static readonly LibraryStamp NotWhole = new(-1, 0, null);

    private Shelved? Ready => _shelved is { } shelved && time.GetUtcNow() - shelved.At < LookAgain ? shelved : null;

    private async Task<Shelved> ShelvedAsync(CancellationToken ct)
    {
        if (Ready is { } ready)
            return ready;
        await _one.WaitAsync(ct);
        try
        {
            if (Ready is { } looked)
                return looked; // whoever held the door has looked
            var stamp = await versions.StampAsync(ct);
            return _shelved =
                _shelved is { } kept && kept.Stamp == stamp ? kept with { At = time.GetUtcNow() } : await ReadAsync(stamp, ct);
        }
        finally
        {
            _one.Release();
        }
    }

    private async Task<Shelved> ReadAsync(LibraryStamp stamp, CancellationToken ct)
    {
        var all = await versions.ListAsync(ct);
        IReadOnlyList<ProcedureView> unproved = [];
        var isWhole = true;
        if (Unseen(all) is { Count: > 0 } unseen)
        {
            try
            {
                unproved = await ShelveAsync(unseen, ct);
            }
            catch (Exception e) when (StorageFaults.Of(e) is not null)
            {
                isWhole = false; // reading goes on with what was published before; the rest is put there at the next look
            }
            all = await versions.ListAsync(ct);
        }
        // The language may have changed under an old version: then it is listed with what is wrong, and used for nothing.
        var read = all.Select(v => (Version: v, Checking.Read(v.File, v.Files).Procedure)).ToList();
        var refused = unproved.Concat(
            read.Where(r => r.Procedure is null && r.Version.WithdrawnAt is null)
                .Select(r => Checking.View(r.Version.File, r.Version.Files))
        );
        var readable = read.Where(r => r.Procedure is not null).ToList();
        var chosen = await ChosenAsync([.. readable.Where(r => r.Version.WithdrawnAt is null).Select(r => (r.Version, r.Procedure!))], ct);
        return new(
            [.. readable.Select(r => r.Version)],
            [.. chosen.Select(c => c.Usable).OfType<Procedure>()],
            [.. refused],
            [.. chosen.SelectMany(c => c.NoLonger)],
            isWhole ? stamp with { Published = all.Count } : NotWhole,
            time.GetUtcNow()
        );
    }

    /// <summary>
    /// Of each procedure the newest version that stands before the rules of now. What was proved under earlier ones is proved anew, once;
    /// one that no longer holds is used for no new run, and the one before it is.
    /// </summary>
    private async Task<IReadOnlyList<(Procedure? Usable, IReadOnlyList<ProcedureView> NoLonger)>> ChosenAsync(
        IReadOnlyList<(PublishedProcedure Version, Procedure Procedure)> standing,
        CancellationToken ct
    )
    {
        var chosen = standing.GroupBy(s => s.Version.Procedure).AsParallel().AsOrdered().Select(Chosen).ToList();
        foreach (var (version, states) in chosen.SelectMany(c => c.ProvedAnew))
            try
            {
                await versions.ProvedAnewAsync(version, states, Prover.RulesNow, ct);
            }
            catch (Exception e) when (StorageFaults.Of(e) is not null)
            {
                // it holds all the same; the next start proves it once more
            }
        return [.. chosen.Select(c => (c.Usable, c.NoLonger))];
    }

    private static (Procedure? Usable, IReadOnlyList<ProcedureView> NoLonger, IReadOnlyList<(PublishedProcedure, int)> ProvedAnew) Chosen(
        IEnumerable<(PublishedProcedure Version, Procedure Procedure)> newestFirst
    )
    {
        var noLonger = new List<ProcedureView>();
        foreach (var (version, procedure) in newestFirst)
        {
            if (version.ProvedUnder >= Prover.RulesNow)
                return (procedure, noLonger, []);
            var view = Checking.View(version.File, procedure, []);
            if (view.Findings.All(f => f.OnlyDeclaresTooLittle))
                return (procedure, noLonger, [(version, view.States)]);
            noLonger.Add(view with { Version = version.Version, Published = version.PublishedAt, PublishedBy = version.PublishedBy });
        }
        return (null, noLonger, []);
    }

    /// <summary>What lies in the folder and was never published. What was published from the very same texts is not even read.</summary>
    private List<(string File, IReadOnlyDictionary<string, string> Files)> Unseen(IReadOnlyList<PublishedProcedure> published)
    {
        return
        [
            .. ProcedureFolder
                .Texts(settings.Procedures)
                .Where(f => !published.Any(v => v.File == f.File && Same(v.Files, f.Files)))
                .Where(f =>
                    Checking.Read(f.File, f.Files).Procedure is not { } read
                    || !published.Any(v => (v.Procedure, v.Version) == (read.Id, read.Version))
                ),
        ];
    }

    /// <summary>Publishes what is proved, and gives back what is not.</summary>
    private async Task<IReadOnlyList<ProcedureView>> ShelveAsync(
        List<(string File, IReadOnlyDictionary<string, string> Files)> unseen,
        CancellationToken ct
    )
    {
        var refused = new List<ProcedureView>();
        foreach (var (view, files) in unseen.AsParallel().AsOrdered().Select(f => (Checking.View(f.File, f.Files), f.Files)))
            if (view.IsProved)
                await versions.PublishAsync(
                    new(view.Id!, view.Version!, view.Title!, view.File, files, view.States, Prover.RulesNow, time.GetUtcNow(), Shipped),
                    ct
                ); // a proved view has all three
            else
            {
                refused.Add(view);
                log.LogWarning(
                    "Procedure file {File} is not published: {Problems} problems, {Findings} safety findings",
                    view.File,
                    view.Problems.Count,
                    view.Findings.Count
                );
            }
        return refused;
    }

    private static bool Same(IReadOnlyDictionary<string, string> one, IReadOnlyDictionary<string, string> other) =>
        one.Count == other.Count && one.All(file => other.TryGetValue(file.Key, out var text) && text == file.Value);

    private sealed record Shelved(
        IReadOnlyList<PublishedProcedure> Versions,
        IReadOnlyList<Procedure> Usable,
        IReadOnlyList<ProcedureView> Refused,
        IReadOnlyList<ProcedureView> NoLonger,
        LibraryStamp Stamp,
        DateTimeOffset At
    )
    {
        public string? NoLongerProved(string procedure, string version) =>
            NoLonger.FirstOrDefault(v => v.Id == procedure && v.Version == version)?.Findings.FirstOrDefault(f => !f.OnlyDeclaresTooLittle)
                is { } unsafeNow
                ? $"Today's proof refuses it: {unsafeNow.Sentence}"
                : null;
    }
}
