using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Core.Tickets.Planning;

[JsonConverter(typeof(KebabEnum<Urgency>))]
public enum Urgency
{
    Now,
    Today,
    Soon,
    CanWait,
}

/// <summary>What comes first, from danger and promise. The score orders every list that has the worst first; the word is for people.</summary>
public sealed record Priority(Urgency Urgency, int Score, string Because)
{
    // Danger outweighs any promise: a missed hour is paid for, lost data is not. Nothing known is nearer to danger than to safety.
    private const int NoMargin = 100;
    private const int WorstIsLost = 80;
    private const int NotKnown = 60;
    private const int OneLeft = 45;
    private const int MoreLeft = 20;
    private const int OnHold = 0;
    private const int Ended = -1;

    private const int Overdue = 40;
    private const int DueInFour = 30;
    private const int DueToday = 15;
    private const int TellsItsAge = 2;

    private static readonly int[] Weights = [NoMargin, WorstIsLost, NotKnown, OneLeft, MoreLeft, OnHold, Ended];

    /// <summary>What the danger alone weighs: all of the score that does not change with the hour.</summary>
    /// <param name="atRest">Nobody has anything to do on it.</param>
    public static int Weight(bool atRest, bool onHold, SwapHelp help, int? margin, int? atWorst) =>
        atRest ? Ended
        : onHold ? OnHold
        : help is SwapHelp.NoRedundancy or SwapHelp.TooManyLost || margin <= 0 ? NoMargin
        : margin is null ? NotKnown
        : atWorst < 0 ? WorstIsLost
        : margin == 1 ? OneLeft
        : MoreLeft;

    public static Priority Of(TicketLine line, DateTimeOffset now)
    {
        var (promise, due) = OfPromise(line.DueAt, line.Due, now);
        var score = Sum(Weight(atRest: false, line.HoldReason is not null, line.Help, line.Margin, line.AtWorst), promise);
        var urgency =
            score >= NoMargin ? Urgency.Now
            : score >= WorstIsLost - MoreLeft ? Urgency.Today
            : score >= OneLeft - 5 ? Urgency.Soon
            : Urgency.CanWait;
        var days = (int)(now - line.ReceivedAt).TotalDays;
        return new(
            urgency,
            score,
            string.Join(
                ", ",
                new[]
                {
                    line.HoldReason is null ? null : "on hold",
                    WhyOf(line),
                    due,
                    days >= TellsItsAge ? $"{days} days old" : null,
                }.OfType<string>()
            )
        );
    }

    /// <summary>
    /// All there is, cut into parts of one weight and one stretch of due times, what comes first on top: within a part, the sooner
    /// due comes first, and then the older. So a list of any length gives its first page without being looked through.
    /// </summary>
    public static IReadOnlyList<PriorityPart> InOrder(DateTimeOffset now) =>
        [
            .. Weights
                .SelectMany(weight => weight <= OnHold ? [new(weight, weight, DateTimeOffset.MinValue, null)] : ByPromise(weight, now))
                .OrderByDescending(part => part.Score)
                .ThenByDescending(part => part.Weight),
        ];

    private static IEnumerable<PriorityPart> ByPromise(int weight, DateTimeOffset now) =>
        [
            new(weight, Sum(weight, Overdue), DateTimeOffset.MinValue, now),
            new(weight, Sum(weight, DueInFour), now, now.AddHours(4)),
            new(weight, Sum(weight, DueToday), now.AddHours(4), now.AddHours(24)),
            new(weight, Sum(weight, 0), now.AddHours(24), null),
        ];

    private static int Sum(int weight, int promise) => weight <= OnHold ? weight : weight + promise;

    private static string WhyOf(TicketLine line) =>
        line.Help is SwapHelp.NoRedundancy or SwapHelp.TooManyLost ? "no swap helps"
        : line.Margin is not { } margin ? "danger not known"
        : margin <= 0 ? "no margin left"
        : line.AtWorst < 0 ? "a suspect more and data is lost"
        : margin == 1 ? "margin one"
        : $"margin {margin}";

    private static (int, string?) OfPromise(DateTimeOffset? at, DeadlineKind? kind, DateTimeOffset now) =>
        at is not { } due || kind is not { } what ? (0, null)
        : due < now
            ? (
                Overdue,
                what == DeadlineKind.Return
                    ? $"{Words.Of(what)} was due {Rebuilds.Watch.Told(now - due)} ago"
                    : $"{Words.Of(what)} promise is over since {Rebuilds.Watch.Told(now - due)}"
            )
        : due - now < TimeSpan.FromHours(4) ? (DueInFour, $"{Words.Of(what)} within {Rebuilds.Watch.Told(due - now)}")
        : due - now < TimeSpan.FromHours(24) ? (DueToday, $"{Words.Of(what)} within {Rebuilds.Watch.Told(due - now)}")
        : (0, null);
}

/// <summary>A part of all tickets in which nothing but the due time says what comes first.</summary>
/// <param name="From">Due at or after this.</param>
/// <param name="Before">Due before this; null for no end, which takes in what nothing is promised for.</param>
public sealed record PriorityPart(int Weight, int Score, DateTimeOffset From, DateTimeOffset? Before)
{
    public bool IsEnded => Weight < 0;
}
