using System.Net.Http.Json;
using System.Text.Json;
using Nailcrow.Client.Admin;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Client;

/// <summary>The whole record: held against itself, sealed, told anew, backed up.</summary>
public sealed partial class NailcrowClient
{
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

    /// <summary>The services that work on this record, and what each of them does.</summary>
    public Task<NodeList> NodesAsync(CancellationToken ct) => GetAsync("api/admin/nodes", Json.NodeList, ct);

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
}
