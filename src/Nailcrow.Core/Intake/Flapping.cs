namespace Nailcrow.Core.Intake;

/// <summary>An alert that comes and goes must neither open a ticket a minute nor fill one with the same line.</summary>
public static class Flapping
{
    /// <summary>
    /// After a ticket of a machine has ended, the same drive's alerts are kept on that ticket for so long, rather than open
    /// another. Default 6 hours: a machine repeats what it has not forgotten, and says what is new again the next day.
    /// </summary>
    public static readonly TimeSpan QuietAfterEnd = TimeSpan.FromHours(6);

    /// <summary>Whether the n-th time the same is said is worth an entry: the 1st, 2nd, 4th, 8th ... are.</summary>
    public static bool IsWorthTelling(int times) => times > 0 && (times & (times - 1)) == 0;
}
