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

/// <summary>What comes first, from danger, promise and age. The score orders a desk; the word is for people.</summary>
public sealed record Priority(Urgency Urgency, int Score, string Because)
{
    // Danger outweighs any promise: a missed hour is paid for, lost data is not. Nothing known is nearer to danger than to safety.
    private const int NoMargin = 100;
    private const int WorstIsLost = 80;
    private const int NotKnown = 60;
    private const int OneLeft = 45;
    private const int MoreLeft = 20;
    private const int Overdue = 40;
    private const int DueInFour = 30;
    private const int DueToday = 15;
    private const int MostForAge = 10;

    public static Priority Of(TicketLine line, DateTimeOffset now)
    {
        var (danger, why) = OfDanger(line);
        var (promise, due) = OfPromise(line.DueAt, line.Due, now);
        var age = (int)Math.Clamp((now - line.ReceivedAt).TotalDays, 0, MostForAge);
        var score = line.HoldReason is null ? danger + promise + age : Math.Min(danger + promise + age, MoreLeft - 1);
        var urgency =
            score >= NoMargin ? Urgency.Now
            : score >= WorstIsLost - MoreLeft ? Urgency.Today
            : score >= OneLeft - 5 ? Urgency.Soon
            : Urgency.CanWait;
        return new(
            urgency,
            score,
            string.Join(
                ", ",
                new[] { line.HoldReason is null ? null : "on hold", why, due, age >= 2 ? $"{age} days old" : null }.OfType<string>()
            )
        );
    }

    private static (int, string) OfDanger(TicketLine line) =>
        line.Help is SwapHelp.NoRedundancy or SwapHelp.TooManyLost ? (NoMargin, "no swap helps")
        : line.Margin is not { } margin ? (NotKnown, "danger not known")
        : margin <= 0 ? (NoMargin, "no margin left")
        : line.AtWorst < 0 ? (WorstIsLost, "a suspect more and data is lost")
        : margin == 1 ? (OneLeft, "margin one")
        : (MoreLeft, $"margin {margin}");

    private static (int, string?) OfPromise(DateTimeOffset? at, DeadlineKind? kind, DateTimeOffset now) =>
        at is not { } due || kind is not { } what ? (0, null)
        : due < now ? (Overdue, $"{Words.Of(what)} promise is over since {Rebuilds.Watch.Told(now - due)}")
        : due - now < TimeSpan.FromHours(4) ? (DueInFour, $"{Words.Of(what)} within {Rebuilds.Watch.Told(due - now)}")
        : due - now < TimeSpan.FromHours(24) ? (DueToday, $"{Words.Of(what)} within {Rebuilds.Watch.Told(due - now)}")
        : (0, null);
}
