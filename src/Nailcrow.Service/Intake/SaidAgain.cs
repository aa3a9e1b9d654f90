using Nailcrow.Core.Intake.Rules;
using Nailcrow.Core.Terms;
using Nailcrow.Store.Intake;

namespace Nailcrow.Service.Intake;

/// <summary>What one sender says again and again is one thing to look at, however often it was said.</summary>
internal sealed record SaidAgain(IntakeItem Last, int Times, DateTimeOffset First)
{
    private static readonly IntakeOutcome[] ToBeLookedAt = [IntakeOutcome.Unmatched, IntakeOutcome.UnknownSender, IntakeOutcome.Settled];

    /// <param name="newestFirst">What has been understood stands for itself; each of it is on its ticket.</param>
    public static IEnumerable<SaidAgain> Of(IEnumerable<IntakeItem> newestFirst) =>
        newestFirst
            .GroupBy(i => ToBeLookedAt.Contains(i.Outcome) ? Key(i) : $"{i.Id}")
            .Select(g => new SaidAgain(g.First(), g.Count(), g.Last().ReceivedAt));

    /// <summary>The same sender, by the same way, in the same words: the time and the number of a line are not what it says.</summary>
    public static bool IsTheSame(IntakeItem one, IntakeItem other) => Key(one) == Key(other);

    private static string Key(IntakeItem item) => $"{item.Outcome}\n{item.Via}\n{item.Sender}\n{item.App}\n{item.Asset}\n{Said(item)}";

    private static string Said(IntakeItem item) =>
        item.Alert?.Text
        ?? (
            SyslogMessage.Parse(item.Text, item.ReceivedAt) is Parsed<SyslogMessage>.Ok(var message)
                ? $"{message.Host}\n{message.Text}"
                : item.Text
        );
}
