using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Service.Tickets;

/// <summary>Which tickets somebody asks for, as it stands in the address.</summary>
/// <param name="Overdue">Only those whose next promise is over.</param>
internal sealed record TicketsAsked(
    bool? Ended,
    string? Stage,
    string? Engineer,
    string? Asset,
    string? Find,
    string? Site,
    string? Customer,
    string? Danger,
    bool Overdue,
    string? Order,
    long? Before,
    int Skip,
    int Limit
)
{
    private const int MostOnAPage = 200;
    private const int MostSkipped = 100_000;

    public Parsed<TicketSearch> Search()
    {
        if (Limit is < 1 or > MostOnAPage)
            return No($"A page has 1 to {MostOnAPage} tickets; {Limit} were asked for.");
        if (Skip is < 0 or > MostSkipped)
            return No($"0 to {MostSkipped} tickets can be left out, not {Skip}; narrow what is asked for.");
        if (!Said<Stage>(Stage, "stage").Is(out var stage, out var reason))
            return No(reason);
        if (!Said<DangerSought>(Danger, "danger").Is(out var danger, out reason))
            return No(reason);
        if (!Said<TicketOrder>(Order, "known order").Is(out var order, out reason))
            return No(reason);
        if (Before is not null && order.Word is TicketOrder.Worst or TicketOrder.DueFirst)
            return No("'before' goes with the newest first; with another order say 'skip'.");
        return new Parsed<TicketSearch>.Ok(
            new(
                Ended,
                stage.Word,
                Engineer,
                Asset?.ToUpperInvariant(),
                Filled(Find),
                Before,
                Limit,
                Filled(Site),
                Filled(Customer),
                danger.Word,
                Overdue,
                order.Word ?? TicketOrder.Newest,
                Skip
            )
        );
    }

    private static Parsed<TicketSearch> No(string reason) => new Parsed<TicketSearch>.Refused(reason);

    private static string? Filled(string? text) => string.IsNullOrWhiteSpace(text) ? null : text;

    private static Parsed<(TWord? Word, string? Text)> Said<TWord>(string? text, string what)
        where TWord : struct, Enum =>
        text is null ? new Parsed<(TWord?, string?)>.Ok((null, null))
        : Words.Parse<TWord>(text, what).Is(out var word, out var reason) ? new Parsed<(TWord?, string?)>.Ok((word, text))
        : new Parsed<(TWord?, string?)>.Refused(reason);
}
