namespace Nailcrow.Service.Returns.Outside;

/// <summary>How patient Nailcrow is with carriers and makers, from the section "Nailcrow:Outside" of its configuration.</summary>
public sealed record OutsideSettings
{
    /// <summary>One call, in seconds. Default 30, 1 to 300.</summary>
    public double AnswerWithinSeconds { get; init; } = 30;

    /// <summary>The pause after a call that failed, in seconds; each next one is twice as long. Default 10, 0.01 to 3,600.</summary>
    public double FirstPauseSeconds { get; init; } = 10;

    /// <summary>The longest pause, in seconds. Default an hour.</summary>
    public double LongestPauseSeconds { get; init; } = 3_600;

    /// <summary>After this many calls it is given up, and somebody looks why. Default 32, which is a day.</summary>
    public int Tries { get; init; } = 32;

    /// <summary>How often a carrier is asked what became of a parcel, and a maker that looks at a claim what came of it, in seconds.
    /// Default half an hour, 0.1 to 86,400.</summary>
    public double AskEverySeconds { get; init; } = 1_800;

    /// <summary>How often it is looked for what has to be back by a day and whom to remind of it, in seconds. Default an hour, 0.2 to
    /// 86,400.</summary>
    public double RemindEverySeconds { get; init; } = 3_600;

    public IEnumerable<string> Problems()
    {
        if (AnswerWithinSeconds is < 1 or > 300)
            yield return $"Nailcrow:Outside:AnswerWithinSeconds is {AnswerWithinSeconds}; accepted: 1 to 300.";
        if (FirstPauseSeconds is < 0.01 or > 3_600)
            yield return $"Nailcrow:Outside:FirstPauseSeconds is {FirstPauseSeconds}; accepted: 0.01 to 3600.";
        if (LongestPauseSeconds < FirstPauseSeconds || LongestPauseSeconds > 86_400)
            yield return $"Nailcrow:Outside:LongestPauseSeconds is {LongestPauseSeconds}; accepted: the first pause to 86400.";
        if (Tries is < 1 or > 1_000)
            yield return $"Nailcrow:Outside:Tries is {Tries}; accepted: 1 to 1000.";
        if (AskEverySeconds is < 0.1 or > 86_400)
            yield return $"Nailcrow:Outside:AskEverySeconds is {AskEverySeconds}; accepted: 0.1 to 86400.";
        if (RemindEverySeconds is < 0.2 or > 86_400)
            yield return $"Nailcrow:Outside:RemindEverySeconds is {RemindEverySeconds}; accepted: 0.2 to 86400.";
    }

    /// <summary>Twice as long each time, and never all at the same moment.</summary>
    public TimeSpan PauseAfter(int tries) =>
        TimeSpan.FromSeconds(
            Math.Min(LongestPauseSeconds, FirstPauseSeconds * Math.Pow(2, Math.Clamp(tries - 1, 0, 30)))
                * (0.9 + Random.Shared.NextDouble() * 0.2)
        );
}
