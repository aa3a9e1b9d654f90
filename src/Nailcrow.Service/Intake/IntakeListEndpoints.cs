using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Wire;
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
        intake.MapPost("/{id:guid}/settle", Settle).WithName("SettleIntake");
        intake.MapPost("/{id:guid}/take-back", TakeBack).WithName("TakeBackIntake");
        intake.MapGet("/rules", Rules).WithName("ListRules");
        var care = intake.MapGroup("/").Takes(Permission.MakeRules);
        care.MapPost("/try", Try).WithName("TryLine").OneEach();
        care.MapPut("/rules/{id}", Put).WithName("PutRule").OneEach().Logged(SecurityEvent.RuleKept, "id");
        care.MapPut("/senders/{name}", PutSender).WithName("PutSender");
    }

    internal static async Task<Results<Ok<IntakeList>, ProblemHttpResult>> List(
        IntakeLog log,
        Reception reception,
        ReferenceBook book,
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
        var said = SaidAgain.Of(await log.ListAsync(wanted, MostLookedAtAgain, ct)).Take(MostShown).ToList();
        var unknown = new HashSet<string>();
        foreach (
            var asset in said.Select(s => s.Last).Where(i => i.Via == IntakeLog.ByPerson).Select(i => i.Asset).OfType<string>().Distinct()
        )
            if (await book.FindAsync(asset, ct) is null)
                unknown.Add(asset);
        var counts = await log.CountsAsync(time.GetUtcNow() - Lately, ct);
        return TypedResults.Ok(
            new IntakeList(
                [.. said.Select(s => View(s, unknown))],
                counts.ToDictionary(c => Words.Of(c.Key), c => c.Value),
                reception.TurnedAway
            )
        );
    }

    internal static async Task<Results<Ok<Tried>, ProblemHttpResult>> Try(
        Sent<TryAsk> sent,
        IntakeRules known,
        TimeProvider time,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
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
        Sent<IntakeRule> sent,
        ReferenceChanging changing,
        IntakeLog log,
        IntakeSorter sorter,
        JournalNews news,
        ClaimsPrincipal person,
        CancellationToken ct
    )
    {
        var rule = sent.Message;
        var named = rule with { Id = id };
        if (await changing.LoadAsync(new ReferenceData([], [], [], Rules: [named]), person.ToActor().Name, ct) is [var problem, ..])
            return Refusals.Unusable(problem);
        var waiting = await log.ListAsync([IntakeOutcome.Unmatched, IntakeOutcome.UnknownSender], MostLookedAtAgain, ct);
        var understood = await sorter.AgainAsync(waiting, ct);
        await log.PutBackAsync(understood, ct);
        if (understood.Count > 0)
            news.RingAlerts();
        return TypedResults.Ok(new RulePut(named, understood.Count));
    }

    /// <summary>A person says what it is about, and it becomes or joins a ticket; or that nobody has to look at it.</summary>
    internal static async Task<Results<Ok<Receipt>, NoContent, ProblemHttpResult>> Settle(
        Guid id,
        Sent<IntakeSettleAsk> sent,
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
        var ask = sent.Message;
        if (await log.FindAsync(id, ct) is not { } item)
            return Refusals.NotFound("There is no such message.");
        // What was put aside may be made a ticket after all.
        if (item.Outcome is not (IntakeOutcome.Unmatched or IntakeOutcome.UnknownSender or IntakeOutcome.Settled))
            return Refusals.Refused(
                $"It is {Words.Of(item.Outcome)} already{(item.Ticket is { } there ? $", on {Core.Tickets.TicketNumber.Text(there)}" : "")}."
            );
        var all = await SameAsync(log, item, ct);
        if (ask.Asset is null)
        {
            await log.SettleAsync(all, IntakeOutcome.Settled, null, ct);
            return TypedResults.NoContent();
        }
        var text =
            item.Alert?.Text
            ?? (SyslogMessage.Parse(item.Text, item.ReceivedAt) is Parsed<SyslogMessage>.Ok(var message) ? message.Text : item.Text);
        var answer = await IntakeEndpoints.Report(
            new Sent<FaultAsk>(
                new(
                    ask.Asset,
                    Reporting.Short(text),
                    JobKind.Fault,
                    ask.Bay ?? item.Alert?.Bay,
                    ask.Serial ?? item.Alert?.Serial,
                    SinceSaid(item),
                    id
                )
            ),
            book,
            lines,
            journal,
            doors,
            log,
            time,
            person,
            ct
        );
        if (answer.Result is not Ok<Receipt> { Value: { } receipt })
            return (ProblemHttpResult)answer.Result;
        await log.SettleAsync(all, IntakeOutcome.Joined, receipt.Ticket, ct);
        return TypedResults.Ok(receipt);
    }

    /// <summary>A machine says it when it is so; of a person's report only where they said since when.</summary>
    private static DateTimeOffset? SinceSaid(IntakeItem item) =>
        item.Via != IntakeLog.ByPerson ? item.ReceivedAt
        : item.Alert is { At: var since } && since < item.ReceivedAt.AddSeconds(-1) ? since
        : null;

    /// <summary>What was put aside waits again for somebody to look at it.</summary>
    internal static async Task<Results<NoContent, ProblemHttpResult>> TakeBack(Guid id, IntakeLog log, CancellationToken ct)
    {
        if (await log.FindAsync(id, ct) is not { } item)
            return Refusals.NotFound("There is no such message.");
        if (item.Outcome != IntakeOutcome.Settled)
            return Refusals.Refused($"It is {Words.Of(item.Outcome)}; only what was put aside is taken back.");
        await log.SettleAsync(await SameAsync(log, item, ct), IntakeOutcome.Unmatched, null, ct);
        return TypedResults.NoContent();
    }

    /// <summary>What is said of one is said of all that were shown as one with it.</summary>
    private static async Task<IReadOnlyCollection<Guid>> SameAsync(IntakeLog log, IntakeItem item, CancellationToken ct) =>
        [
            item.Id,
            .. (await log.ListAsync([item.Outcome], MostLookedAtAgain, ct))
                .Where(i => i.Id != item.Id && SaidAgain.IsTheSame(i, item))
                .Select(i => i.Id),
        ];

    /// <summary>Gives a sender a new secret to sign with. It is shown this once.</summary>
    internal static async Task<Results<Ok<EventSenderView>, ProblemHttpResult>> PutSender(
        string name,
        EventSenders senders,
        OurAddress us,
        CancellationToken ct
    )
    {
        if (name.Length > 60 || !name.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_' or '.'))
            return Refusals.Unusable("A sender's name has up to 60 letters, digits, dots, dashes and underscores.");
        var secret = SignedEvents.NewSecret();
        await senders.PutAsync(name, secret, ct);
        return TypedResults.Ok(new EventSenderView(name, secret, us.Of($"api/intake/events/{Uri.EscapeDataString(name)}").AbsoluteUri));
    }

    private static IntakeView View(SaidAgain said, HashSet<string> unknown)
    {
        var item = said.Last;
        return new(
            item.Id,
            item.ReceivedAt,
            item.Via,
            item.Sender,
            item.App,
            item.Text,
            Words.Of(item.Outcome),
            item.Rule,
            item.Asset,
            item.Ticket,
            item.Asset is not null && unknown.Contains(item.Asset),
            said.Times,
            said.First
        );
    }
}
