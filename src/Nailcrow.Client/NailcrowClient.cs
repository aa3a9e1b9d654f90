using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Client.Admin;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Client;

/// <summary>The service's interface, typed, a file for each room. Throws <see cref="ApiProblem"/> with the service's own sentence.</summary>
public sealed partial class NailcrowClient(HttpClient http, TimeProvider time)
{
    private static readonly ContractJson Json = ContractJson.Default;

    private readonly MeasuredClock _clock = new();

    private readonly LostAnswers _lost = new(time);

    private Guid NewId() => Guid.CreateVersion7(time.GetUtcNow());

    private async Task FileAsync(string path, Stream into, CancellationToken ct)
    {
        using var answer = await http.GetAsync(path, HttpCompletionOption.ResponseHeadersRead, ct);
        await ThrowUnlessOkAsync(answer, ct);
        await answer.Content.CopyToAsync(into, ct);
    }

    private Task<T> GetAsync<T>(string path, JsonTypeInfo<T> type, CancellationToken ct) =>
        _lost.AgainAsync(() => AskedAsync(() => http.GetAsync(path, HttpCompletionOption.ResponseHeadersRead, ct), type, ct), ct);

    private async Task<TAnswer> PostAsync<TAsk, TAnswer>(
        string path,
        TAsk ask,
        JsonTypeInfo<TAsk> askType,
        JsonTypeInfo<TAnswer> type,
        CancellationToken ct
    )
    {
        using var content = JsonContent.Create(ask, askType);
        return await AskedAsync(() => http.PostAsync(path, content, ct), type, ct);
    }

    /// <summary>What carries an id of its own, and is done once however often it comes.</summary>
    private Task<TAnswer> PostOnceAsync<TAsk, TAnswer>(
        string path,
        TAsk ask,
        JsonTypeInfo<TAsk> askType,
        JsonTypeInfo<TAnswer> type,
        CancellationToken ct
    ) => _lost.AgainAsync(() => PostAsync(path, ask, askType, type, ct), ct);

    private async Task<TAnswer> PutAsync<TAsk, TAnswer>(
        string path,
        TAsk ask,
        JsonTypeInfo<TAsk> askType,
        JsonTypeInfo<TAnswer> type,
        CancellationToken ct
    )
    {
        using var content = JsonContent.Create(ask, askType);
        return await AskedAsync(() => http.PutAsync(path, content, ct), type, ct);
    }

    private Task<T> PostAsync<T>(string path, JsonTypeInfo<T> type, CancellationToken ct) =>
        AskedAsync(() => http.PostAsync(path, null, ct), type, ct);

    private Task<T> PostOnceAsync<T>(string path, JsonTypeInfo<T> type, CancellationToken ct) =>
        _lost.AgainAsync(() => PostAsync(path, type, ct), ct);

    /// <summary>A picture under an id of its own; one that comes from a pipe cannot be read a second time.</summary>
    private async Task<Receipt> PutPictureAsync(string path, Stream picture, string kind, CancellationToken ct)
    {
        using var content = new StreamContent(picture);
        content.Headers.ContentType = new(kind);
        Task<Receipt> Put() => AskedAsync(() => http.PutAsync(path, content, ct), Json.Receipt, ct);
        return await (picture.CanSeek ? _lost.AgainAsync(Put, ct) : Put());
    }

    private async Task<T> AskedAsync<T>(Func<Task<HttpResponseMessage>> ask, JsonTypeInfo<T> type, CancellationToken ct)
    {
        using var answer = await TimedAsync(ask);
        return await ReadAsync(answer, type, ct);
    }

    private async Task<HttpResponseMessage> TimedAsync(Func<Task<HttpResponseMessage>> ask)
    {
        var asked = time.GetUtcNow(); // before anything of it is on its way
        var answer = await ask();
        _clock.Heard(asked, time.GetUtcNow(), answer.Headers.Date);
        return answer;
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
        throw await ProblemAsync(answer, ct) is { Detail: { } sentence } problem
            ? new ApiProblem(answer.StatusCode, sentence, problem.Type)
            : ApiProblem.WithoutSentence(answer.StatusCode);
    }

    private static async Task<Admin.Problem?> ProblemAsync(HttpResponseMessage answer, CancellationToken ct)
    {
        try
        {
            return await answer.Content.ReadFromJsonAsync(Json.Problem, ct);
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
        Add("overdue", search.Overdue ? "true" : null);
        Add("order", Words.Of(search.Order));
        Add("skip", search.Skip == 0 ? null : search.Skip.ToString(System.Globalization.CultureInfo.InvariantCulture));
        Add("before", search.Before?.ToString(System.Globalization.CultureInfo.InvariantCulture));
        return query.ToString();
    }
}
