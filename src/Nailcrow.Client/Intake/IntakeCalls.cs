using System.Net.Http.Json;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Client;

/// <summary>What came in and is not a ticket yet.</summary>
public sealed partial class NailcrowClient
{
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

    /// <summary>What was put aside waits again for somebody to look at it.</summary>
    public async Task TakeBackIntakeAsync(Guid id, CancellationToken ct)
    {
        using var answer = await http.PostAsync($"api/intake/{id}/take-back", null, ct);
        await ThrowUnlessOkAsync(answer, ct);
    }

    /// <returns>The receipt of the ticket it is on now; null where it was only put aside.</returns>
    public async Task<Receipt?> SettleIntakeAsync(Guid id, IntakeSettleAsk ask, CancellationToken ct)
    {
        using var content = JsonContent.Create(ask, Json.IntakeSettleAsk);
        using var answer = await http.PostAsync($"api/intake/{id}/settle", content, ct);
        return answer.StatusCode == System.Net.HttpStatusCode.NoContent ? null : await ReadAsync(answer, Json.Receipt, ct);
    }
}
