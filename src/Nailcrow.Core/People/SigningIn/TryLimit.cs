namespace Nailcrow.Core.People.SigningIn;

/// <summary>How often one may be wrong before one has to wait, and how long then: twice as long after each further time.</summary>
/// <param name="Free">So many wrong tries cost nothing.</param>
/// <param name="First">The wait after the first beyond them.</param>
/// <param name="Most">No wait is longer.</param>
/// <param name="Forgotten">After so long without a try they are forgotten.</param>
public sealed record TryLimit(int Free, TimeSpan First, TimeSpan Most, TimeSpan Forgotten)
{
    /// <summary>One name from one address: somebody who mistypes gets in; a program gets four tries an hour.</summary>
    public static readonly TryLimit OfPair = new(5, TimeSpan.FromSeconds(2), TimeSpan.FromMinutes(15), TimeSpan.FromHours(1));

    /// <summary>One address, whatever the names: a whole office sits behind one.</summary>
    public static readonly TryLimit OfAddress = new(100, TimeSpan.FromSeconds(2), TimeSpan.FromMinutes(5), TimeSpan.FromMinutes(30));

    /// <summary>One name from addresses it never signed in from: under 100 an hour, however many there are (OWASP ASVS 4, 2.2.1).</summary>
    public static readonly TryLimit OfName = new(20, TimeSpan.FromSeconds(45), TimeSpan.FromSeconds(45), TimeSpan.FromHours(1));

    /// <summary>How long to wait before the next try; zero where none.</summary>
    public TimeSpan Wait(WrongTries tries, DateTimeOffset now)
    {
        if (tries.Count < Free || now - tries.Last >= Forgotten)
            return TimeSpan.Zero;
        var doublings = Math.Min(tries.Count - Free, 30);
        var wait = TimeSpan.FromTicks(Math.Min(Most.Ticks, First.Ticks << Math.Min(doublings, 20)));
        var left = tries.Last + wait - now;
        return left > TimeSpan.Zero ? left : TimeSpan.Zero;
    }

    /// <summary>One more; a try counts as wrong from its beginning, so that a hundred at once are a hundred.</summary>
    public WrongTries More(WrongTries tries, DateTimeOffset now) => new(now - tries.Last >= Forgotten ? 1 : tries.Count + 1, now);
}

/// <summary>How many wrong ones there were, and when the last was.</summary>
public readonly record struct WrongTries(int Count, DateTimeOffset Last);
