using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Client.Admin;
using Nailcrow.Client.Appliances;
using Nailcrow.Client.Intake;
using Nailcrow.Client.People;
using Nailcrow.Client.Procedures;
using Nailcrow.Client.Rebuilds;
using Nailcrow.Client.Tickets;
using Nailcrow.Client.Tickets.Planning;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Client;

/// <summary>The service's interface, typed. Throws <see cref="ApiProblem"/> with the service's own sentence.</summary>
public sealed class NailcrowClient(HttpClient http, TimeProvider time)
{
    private static readonly ContractJson Json = ContractJson.Default;

    public Task<Token> SignInAsync(string name, string password, CancellationToken ct) =>
        PostAsync("api/sign-in", new(name, password), Json.SignInAsk, Json.Token, ct);

    public void UseToken(string token) => http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);

    public Task<PersonView> MeAsync(CancellationToken ct) => GetAsync("api/me", Json.PersonView, ct);

    public Task<PeopleList> PeopleAsync(CancellationToken ct) => GetAsync("api/people", Json.PeopleList, ct);

    public Task<PersonView> AddPersonAsync(PersonAsk person, CancellationToken ct) =>
        PostAsync("api/people", person, Json.PersonAsk, Json.PersonView, ct);

    public Task<TicketPage> TicketsAsync(TicketSearch search, CancellationToken ct) =>
        GetAsync($"api/tickets?{Query(search)}", Json.TicketPage, ct);

    /// <summary>What is open, by whose turn it is, the worst first.</summary>
    /// <param name="most">How many of each turn are told, 1 to 1000.</param>
    public Task<WaitingView> WaitingAsync(int most, CancellationToken ct) =>
        GetAsync($"api/tickets/waiting?most={most}", Json.WaitingView, ct);

    public Task<TicketView> TicketAsync(long number, CancellationToken ct) => GetAsync($"api/tickets/{number}", Json.TicketView, ct);

    /// <summary>The ticket again, for whoever follows a run: a sheet never changes, and is sent only where it is another one than this.</summary>
    public async Task<TicketView> TicketAsync(long number, RunSheet have, CancellationToken ct)
    {
        var view = await GetAsync($"api/tickets/{number}?haveSheet={have.Id}", Json.TicketView, ct);
        return view.Run is { } run && run.Sheet.Id == have.Id ? view with { Run = run with { Sheet = have } } : view;
    }

    public Task<JournalPage> JournalAsync(long number, long after, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/journal?after={after}", Json.JournalPage, ct);

    public Task<Receipt> ReportAsync(FaultAsk fault, CancellationToken ct) =>
        PostAsync("api/tickets", fault with { Id = fault.Id ?? Guid.CreateVersion7() }, Json.FaultAsk, Json.Receipt, ct);

    /// <summary>Writes an entry under an id of its own, so that it may be sent again after a broken connection.</summary>
    /// <param name="at">When it happened, where that is told later; left out, now.</param>
    public Task<Receipt> WriteAsync(long number, EntryBody body, CancellationToken ct, DateTimeOffset? at = null)
    {
        var now = time.GetUtcNow();
        return WriteAsync(number, new EntryAsk(body, Guid.CreateVersion7(now), at ?? now, now), ct);
    }

    public Task<Receipt> WriteAsync(long number, EntryAsk entry, CancellationToken ct) =>
        PostAsync($"api/tickets/{number}/entries", entry, Json.EntryAsk, Json.Receipt, ct);

    /// <summary>The service looks at the machine and keeps what it sees.</summary>
    public Task<Receipt> TakeSnapshotAsync(long number, CancellationToken ct) =>
        PostAsync($"api/tickets/{number}/snapshots?id={NewId()}", Json.Receipt, ct);

    /// <summary>The service asks the machine how far its rebuild is, and keeps the answer.</summary>
    public Task<Receipt> TakeReadingAsync(long number, CancellationToken ct) =>
        PostAsync($"api/tickets/{number}/readings?id={NewId()}", Json.Receipt, ct);

    public Task<Receipt> SwitchLightAsync(long number, bool on, CancellationToken ct) =>
        PostAsync($"api/tickets/{number}/light?id={NewId()}", new(on), Json.LightAsk, Json.Receipt, ct);

    public Task<Receipt> StartRunAsync(long number, string? procedure, CancellationToken ct, DateTimeOffset? at = null) =>
        PostAsync($"api/tickets/{number}/sheet?id={NewId()}", new(procedure, at), Json.SheetAsk, Json.Receipt, ct);

    private Guid NewId() => Guid.CreateVersion7(time.GetUtcNow());

    /// <summary>A page of appliances, in order of asset number.</summary>
    /// <param name="find">Any part of an asset number, a chassis' serial, a model, a site or a place in it.</param>
    public Task<AppliancePage> AppliancesAsync(string? after, CancellationToken ct, string? find = null) =>
        GetAsync(
            $"api/appliances?find={Uri.EscapeDataString(find ?? "")}{(after is null ? "" : $"&after={Uri.EscapeDataString(after)}")}",
            Json.AppliancePage,
            ct
        );

    public Task<ApplianceView> ApplianceAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}", Json.ApplianceView, ct);

    public Task<BaysView> BaysAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}/bays", Json.BaysView, ct);

    /// <param name="plan">Exchanges to reckon through, as "3=12TB,5=16TB"; null for none.</param>
    public Task<BringView> BringAsync(long number, CancellationToken ct, string? plan = null) =>
        GetAsync($"api/tickets/{number}/bring{(plan is null ? "" : $"?plan={Uri.EscapeDataString(plan)}")}", Json.BringView, ct);

    public Task<DeskView> DeskAsync(CancellationToken ct) => GetAsync("api/desk", Json.DeskView, ct);

    public Task<DayView> DayAsync(string engineer, CancellationToken ct) =>
        GetAsync($"api/days/{Uri.EscapeDataString(engineer)}", Json.DayView, ct);

    public Task<DriveList> FindDrivesAsync(string find, CancellationToken ct) =>
        GetAsync($"api/drives?find={Uri.EscapeDataString(find)}", Json.DriveList, ct);

    public Task<DriveLifeView> DriveAsync(string serial, CancellationToken ct) =>
        GetAsync($"api/drives/{Uri.EscapeDataString(serial)}", Json.DriveLifeView, ct);

    public Task<SnapshotList> SnapshotsAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}/snapshots", Json.SnapshotList, ct);

    public Task<BayMapView> BayMapAsync(string asset, CancellationToken ct) =>
        GetAsync($"api/appliances/{Uri.EscapeDataString(asset)}/map", Json.BayMapView, ct);

    /// <summary>Two snapshots, each named by ticket and entry as "T-1002/5".</summary>
    public Task<SnapshotDifference> CompareAsync(string before, string after, CancellationToken ct) =>
        GetAsync(
            $"api/snapshots/compare?before={Uri.EscapeDataString(before)}&after={Uri.EscapeDataString(after)}",
            Json.SnapshotDifference,
            ct
        );

    public Task<IntakeList> IntakeAsync(string? outcome, CancellationToken ct) =>
        GetAsync($"api/intake{(outcome is null ? "" : $"?outcome={Uri.EscapeDataString(outcome)}")}", Json.IntakeList, ct);

    public Task<Tried> TryLineAsync(TryAsk ask, CancellationToken ct) => PostAsync("api/intake/try", ask, Json.TryAsk, Json.Tried, ct);

    public Task<RuleList> RulesAsync(CancellationToken ct) => GetAsync("api/intake/rules", Json.RuleList, ct);

    public async Task<RulePut> PutRuleAsync(Core.Intake.Rules.IntakeRule rule, CancellationToken ct)
    {
        using var content = JsonContent.Create(rule, Json.IntakeRule);
        using var answer = await http.PutAsync($"api/intake/rules/{Uri.EscapeDataString(rule.Id)}", content, ct);
        return await ReadAsync(answer, Json.RulePut, ct);
    }

    public async Task<EventSenderView> PutSenderAsync(string name, CancellationToken ct)
    {
        using var answer = await http.PutAsync($"api/intake/senders/{Uri.EscapeDataString(name)}", null, ct);
        return await ReadAsync(answer, Json.EventSenderView, ct);
    }

    /// <returns>The receipt of the ticket it is on now; null where it was only put aside.</returns>
    public async Task<Receipt?> SettleIntakeAsync(Guid id, IntakeSettleAsk ask, CancellationToken ct)
    {
        using var content = JsonContent.Create(ask, Json.IntakeSettleAsk);
        using var answer = await http.PostAsync($"api/intake/{id}/settle", content, ct);
        return answer.StatusCode == System.Net.HttpStatusCode.NoContent ? null : await ReadAsync(answer, Json.Receipt, ct);
    }

    /// <summary>Sends a CSV file; a dry run changes nothing.</summary>
    public async Task<ImportResult> ImportAsync(string kind, Stream file, bool dryRun, bool all, CancellationToken ct)
    {
        using var content = new StreamContent(file);
        content.Headers.ContentType = new("text/csv");
        using var answer = await http.PostAsync(
            $"api/import/{Uri.EscapeDataString(kind)}?dryRun={(dryRun ? "true" : "false")}&all={(all ? "true" : "false")}",
            content,
            ct
        );
        return await ReadAsync(answer, Json.ImportResult, ct);
    }

    public async Task ExportAsync(string kind, Stream into, CancellationToken ct)
    {
        using var answer = await http.GetAsync($"api/export/{Uri.EscapeDataString(kind)}", HttpCompletionOption.ResponseHeadersRead, ct);
        await ThrowUnlessOkAsync(answer, ct);
        await answer.Content.CopyToAsync(into, ct);
    }

    /// <summary>The run sheet as a PDF.</summary>
    public Task PaperAsync(long number, Stream into, CancellationToken ct) => FileAsync($"api/tickets/{number}/sheet.pdf", into, ct);

    public Task<ServiceReport> ReportOfAsync(long number, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/report", Json.ServiceReport, ct);

    public Task ReportPaperAsync(long number, Stream into, CancellationToken ct) => FileAsync($"api/tickets/{number}/report.pdf", into, ct);

    private async Task FileAsync(string path, Stream into, CancellationToken ct)
    {
        using var answer = await http.GetAsync(path, HttpCompletionOption.ResponseHeadersRead, ct);
        await ThrowUnlessOkAsync(answer, ct);
        await answer.Content.CopyToAsync(into, ct);
    }

    /// <summary>Keeps a picture with a ticket; the same id again counts once.</summary>
    public async Task<Receipt> KeepPhotoAsync(long number, Guid photo, Stream picture, string? step, string? says, CancellationToken ct)
    {
        using var content = new StreamContent(picture);
        content.Headers.ContentType = new("image/jpeg");
        var query = string.Join(
            '&',
            new[] { ("step", step), ("says", says) }
                .Where(q => q.Item2 is not null)
                .Select(q => $"{q.Item1}={Uri.EscapeDataString(q.Item2!)}")
        ); // the filter left those that are said
        using var answer = await http.PutAsync($"api/tickets/{number}/photos/{photo}?{query}", content, ct);
        return await ReadAsync(answer, Json.Receipt, ct);
    }

    public Task<ProcedureList> ProceduresAsync(CancellationToken ct) => GetAsync("api/procedures", Json.ProcedureList, ct);

    public Task<ProcedurePage> ProcedureAsync(string id, string? version, CancellationToken ct) =>
        GetAsync(
            $"api/procedures/{Uri.EscapeDataString(id)}{(version is null ? "" : $"?version={Uri.EscapeDataString(version)}")}",
            Json.ProcedurePage,
            ct
        );

    public Task<ProcedureView> PublishAsync(PublishAsk ask, CancellationToken ct) =>
        PostAsync("api/procedures", ask, Json.PublishAsk, Json.ProcedureView, ct);

    public async Task WithdrawAsync(string id, string version, string because, CancellationToken ct)
    {
        using var content = JsonContent.Create(new WithdrawAsk(because), Json.WithdrawAsk);
        using var answer = await http.PostAsync(
            $"api/procedures/{Uri.EscapeDataString(id)}/versions/{Uri.EscapeDataString(version)}/withdraw",
            content,
            ct
        );
        await ThrowUnlessOkAsync(answer, ct);
    }

    public Task<VersionDifference> CompareProcedureAsync(string id, string before, string after, CancellationToken ct) =>
        GetAsync(
            $"api/procedures/{Uri.EscapeDataString(id)}/compare?before={Uri.EscapeDataString(before)}&after={Uri.EscapeDataString(after)}",
            Json.VersionDifference,
            ct
        );

    public Task<TimesView> ProcedureTimesAsync(string id, CancellationToken ct) =>
        GetAsync($"api/procedures/{Uri.EscapeDataString(id)}/times", Json.TimesView, ct);

    public Task<Loaded> LoadAsync(ReferenceData data, CancellationToken ct) =>
        PostAsync("api/admin/reference", data, Json.ReferenceData, Json.Loaded, ct);

    /// <summary>Holds everything that is kept against itself, and tells how far it is meanwhile.</summary>
    public async Task<Verified> VerifyAsync(CancellationToken ct, VerifyAsk? ask = null, Action<VerifyNews>? progress = null)
    {
        using var message = new HttpRequestMessage(HttpMethod.Post, "api/admin/verify")
        {
            Content = JsonContent.Create(ask ?? new(), Json.VerifyAsk),
        };
        using var answer = await http.SendAsync(message, HttpCompletionOption.ResponseHeadersRead, ct);
        await ThrowUnlessOkAsync(answer, ct);
        using var lines = new StreamReader(await answer.Content.ReadAsStreamAsync(ct));
        while (await lines.ReadLineAsync(ct) is { } line)
        {
            var news = JsonSerializer.Deserialize(line, Json.VerifyNews);
            if (news is { Found: { } found })
                return found;
            if (news is { Problem: { } problem })
                throw new ApiProblem(System.Net.HttpStatusCode.ServiceUnavailable, problem);
            if (news is not null)
                progress?.Invoke(news);
        }
        throw new ApiProblem(answer.StatusCode, "The service stopped before it had verified everything.");
    }

    public Task<SealMade> SealAsync(CancellationToken ct) => PostAsync("api/admin/seal", Json.SealMade, ct);

    /// <summary>A ticket's entries with the way to the newest seal.</summary>
    public Task<TicketProof> ProveAsync(long number, CancellationToken ct) => GetAsync($"api/tickets/{number}/proof", Json.TicketProof, ct);

    /// <summary>Readings of the rebuild, oldest first, a page of them.</summary>
    public Task<ReadingPage> ReadingsAsync(long number, int after, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/readings?after={after}", Json.ReadingPage, ct);

    public Task<Rebuilt> RebuildProjectionsAsync(CancellationToken ct) => PostAsync("api/admin/rebuild-projections", Json.Rebuilt, ct);

    /// <param name="keys">With the service's keys: whoever reads the file can then act as the service.</param>
    public async Task BackupAsync(Stream into, bool keys, CancellationToken ct)
    {
        using var answer = await http.GetAsync(
            $"api/admin/backup?keys={(keys ? "true" : "false")}",
            HttpCompletionOption.ResponseHeadersRead,
            ct
        );
        await ThrowUnlessOkAsync(answer, ct);
        await answer.Content.CopyToAsync(into, ct);
    }

    private async Task<T> GetAsync<T>(string path, JsonTypeInfo<T> type, CancellationToken ct)
    {
        using var answer = await http.GetAsync(path, HttpCompletionOption.ResponseHeadersRead, ct);
        return await ReadAsync(answer, type, ct);
    }

    private async Task<TAnswer> PostAsync<TAsk, TAnswer>(
        string path,
        TAsk ask,
        JsonTypeInfo<TAsk> askType,
        JsonTypeInfo<TAnswer> type,
        CancellationToken ct
    )
    {
        using var content = JsonContent.Create(ask, askType);
        using var answer = await http.PostAsync(path, content, ct);
        return await ReadAsync(answer, type, ct);
    }

    private async Task<T> PostAsync<T>(string path, JsonTypeInfo<T> type, CancellationToken ct)
    {
        using var answer = await http.PostAsync(path, null, ct);
        return await ReadAsync(answer, type, ct);
    }

    private static async Task<T> ReadAsync<T>(HttpResponseMessage answer, JsonTypeInfo<T> type, CancellationToken ct)
    {
        await ThrowUnlessOkAsync(answer, ct);
        return await answer.Content.ReadFromJsonAsync(type, ct) ?? throw new ApiProblem(answer.StatusCode, "The service answered nothing.");
    }

    private static async Task ThrowUnlessOkAsync(HttpResponseMessage answer, CancellationToken ct)
    {
        if (answer.IsSuccessStatusCode)
            return;
        throw new ApiProblem(
            answer.StatusCode,
            await SentenceAsync(answer, ct) ?? $"The service answered {(int)answer.StatusCode} {answer.ReasonPhrase}."
        );
    }

    private static async Task<string?> SentenceAsync(HttpResponseMessage answer, CancellationToken ct)
    {
        try
        {
            return (await answer.Content.ReadFromJsonAsync(Json.Problem, ct))?.Detail;
        }
        catch (JsonException)
        {
            return null; // something between us and the service answered
        }
    }

    private static string Query(TicketSearch search)
    {
        var query = new StringBuilder($"limit={search.Limit}");
        void Add(string name, string? value)
        {
            if (value is not null)
                query.Append('&').Append(name).Append('=').Append(Uri.EscapeDataString(value));
        }
        Add(
            "ended",
            search.Ended switch
            {
                true => "true",
                false => "false",
                null => null,
            }
        );
        Add("stage", search.Stage is { } stage ? Words.Of(stage) : null);
        Add("engineer", search.Engineer);
        Add("asset", search.Asset);
        Add("find", search.Find);
        Add("site", search.Site);
        Add("customer", search.Customer);
        Add("danger", search.Danger is { } danger ? Words.Of(danger) : null);
        Add("overdue", search.OverdueAt is null ? null : "true");
        Add("order", search.Order == TicketOrder.Newest ? null : Words.Of(search.Order));
        Add("skip", search.Skip == 0 ? null : search.Skip.ToString(System.Globalization.CultureInfo.InvariantCulture));
        Add("before", search.Before?.ToString(System.Globalization.CultureInfo.InvariantCulture));
        return query.ToString();
    }
}
