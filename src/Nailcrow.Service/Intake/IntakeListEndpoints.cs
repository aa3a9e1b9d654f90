using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Intake.Events;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Intake;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Service.Intake;

/// <summary>What nobody understood, and the rules that make it understood.</summary>
internal static class IntakeListEndpoints
{
    private const int MostShown = 200;

    // What came in since yesterday is what somebody still looks at.
    private static readonly TimeSpan Lately = TimeSpan.FromHours(24);
    private const int MostLookedAtAgain = 2_000;

    public static void MapIntakeList(this WebApplication app)
    {
        var intake = app.MapGroup("/api/intake").WithTags("Intake");
        intake.MapGet("/", List).WithName("ListIntake");
        intake.MapPost("/try", Try).WithName("TryLine");
        intake.MapPost("/{id:guid}/settle", Settle).WithName("SettleIntake");
        intake.MapGet("/rules", Rules).WithName("ListRules");
        var care = intake.MapGroup("/").Takes(Permission.MakeRules);
        care.MapPut("/rules/{id}", Put).WithName("PutRule");
        care.MapPut("/senders/{name}", PutSender).WithName("PutSender");
    }

    internal static async Task<Results<Ok<IntakeList>, ProblemHttpResult>> List(
        IntakeLog log,
        Reception reception,
        TimeProvider time,
        CancellationToken ct,
        string? outcome = null
    )
    {
        IReadOnlyCollection<IntakeOutcome> wanted = [IntakeOutcome.Unmatched, IntakeOutcome.UnknownSender];
        if (outcome is not null)
            switch (Words.Parse<IntakeOutcome>(outcome, "outcome"))
            {
                case Parsed<IntakeOutcome>.Ok(var one):
                    wanted = [one];
                    break;
                case Parsed<IntakeOutcome>.Refused(var reason):
                    return Refusals.Unusable(reason);
            }
        var items = await log.ListAsync(wanted, MostShown, ct);
        var counts = await log.CountsAsync(time.GetUtcNow() - Lately, ct);
        return TypedResults.Ok(
            new IntakeList([.. items.Select(View)], counts.ToDictionary(c => Words.Of(c.Key), c => c.Value), reception.TurnedAway)
        );
    }

    internal static async Task<Results<Ok<Tried>, ProblemHttpResult>> Try(
        TryAsk ask,
        IntakeRules known,
        TimeProvider time,
        CancellationToken ct
    )
    {
        if (ask.Rule?.Problem() is { } problem)
            return Refusals.Unusable(problem);
        if (!SyslogMessage.Parse(ask.Line, time.GetUtcNow()).Is(out var message, out var unread))
            return TypedResults.Ok(new Tried(unread, null, null, null, null, null, null, null, null, null, null, null, null, null));
        var rules = (await known.RulesAsync(ct)).Where(r => r.Id != ask.Rule?.Id);
        var match = new RuleBook(ask.Rule is { } more ? rules.Append(more) : rules).On(message.App, message.Text);
        return TypedResults.Ok(
            new Tried(
                null,
                message.At,
                message.Host,
                message.App,
                message.Text,
                match?.Rule.Id,
                match is null ? null : Words.Of(match.Rule.Outcome),
                match is null ? null : Words.Of(match.Rule.Kind),
                match?.Bay,
                match?.Name,
                match?.Serial,
                match?.Array,
                match?.Asset,
                match?.Count
            )
        );
    }

    internal static async Task<Ok<RuleList>> Rules(IntakeRules known, CancellationToken ct) =>
        TypedResults.Ok(new RuleList(await known.RulesAsync(ct)));

    /// <summary>Adds or replaces a rule; what was kept and not understood is held against it at once.</summary>
    internal static async Task<Results<Ok<RulePut>, ProblemHttpResult>> Put(
        string id,
        IntakeRule rule,
        ReferenceChanging changing,
        IntakeLog log,
        IntakeSorter sorter,
        Reception reception,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var named = rule with { Id = id };
        if (await changing.LoadAsync(new ReferenceData([], [], [], Rules: [named]), person.ToActor().Name, ct) is [var problem, ..])
            return Refusals.Unusable(problem);
        var understood = new List<IntakeItem>();
        foreach (var item in await log.ListAsync([IntakeOutcome.Unmatched, IntakeOutcome.UnknownSender], MostLookedAtAgain, ct))
            if (await sorter.AgainAsync(item, ct) is { } now)
                understood.Add(now);
        await log.PutBackAsync(understood, ct);
        if (understood.Count > 0)
            reception.News.Release();
        return TypedResults.Ok(new RulePut(named, understood.Count));
    }

    /// <summary>A person says what it is about, and it becomes or joins a ticket; or that nobody has to look at it.</summary>
    internal static async Task<Results<Ok<Receipt>, NoContent, ProblemHttpResult>> Settle(
        Guid id,
        IntakeSettleAsk ask,
        IntakeLog log,
        ReferenceBook book,
        TicketLines lines,
        TicketJournal journal,
        OneAtATime doors,
        TimeProvider time,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        if (await log.FindAsync(id, ct) is not { } item)
            return Refusals.NotFound("There is no such message.");
        if (item.Outcome is not (IntakeOutcome.Unmatched or IntakeOutcome.UnknownSender))
            return Refusals.Refused(
                $"It is {Words.Of(item.Outcome)} already{(item.Ticket is { } there ? $", on {Core.Tickets.TicketNumber.Text(there)}" : "")}."
            );
        if (ask.Asset is null)
        {
            await log.SettleAsync([id], IntakeOutcome.Settled, null, ct);
            return TypedResults.NoContent();
        }
        var text =
            item.Alert?.Text
            ?? (SyslogMessage.Parse(item.Text, item.ReceivedAt) is Parsed<SyslogMessage>.Ok(var message) ? message.Text : item.Text);
        var answer = await IntakeEndpoints.Report(
            new FaultAsk(ask.Asset, Reporting.Short(text), JobKind.Fault, ask.Bay, ask.Serial, item.ReceivedAt, id),
            book,
            lines,
            journal,
            doors,
            time,
            person,
            ct
        );
        if (answer.Result is not Ok<Receipt> { Value: { } receipt })
            return (ProblemHttpResult)answer.Result;
        await log.SettleAsync([id], IntakeOutcome.Joined, receipt.Ticket, ct);
        return TypedResults.Ok(receipt);
    }

    /// <summary>Gives a sender a new secret to sign with. It is shown this once.</summary>
    internal static async Task<Results<Ok<EventSenderView>, ProblemHttpResult>> PutSender(
        string name,
        EventSenders senders,
        HttpContext http,
        CancellationToken ct
    )
    {
        if (name.Length > 60 || !name.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_' or '.'))
            return Refusals.Unusable("A sender's name has up to 60 letters, digits, dots, dashes and underscores.");
        var secret = SignedEvents.NewSecret();
        await senders.PutAsync(name, secret, ct);
        return TypedResults.Ok(new EventSenderView(name, secret, $"{http.Request.Scheme}://{http.Request.Host}/api/intake/events/{name}"));
    }

    private static IntakeView View(IntakeItem item) =>
        new(
            item.Id,
            item.ReceivedAt,
            item.Via,
            item.Sender,
            item.App,
            item.Text,
            Words.Of(item.Outcome),
            item.Rule,
            item.Asset,
            item.Ticket
        );
}
