namespace Nailcrow.StandIn.Machine;

/// <summary>How the simulated management interface behaves.</summary>
internal enum Manner
{
    /// <summary>Answers at once and truly.</summary>
    Well,

    /// <summary>Takes calls and never answers them.</summary>
    Hangs,

    /// <summary>Answers something that is not JSON.</summary>
    Garbage,

    /// <summary>Answers 200 MB.</summary>
    Flood,

    /// <summary>Goes on showing what it showed when it froze.</summary>
    Frozen,

    /// <summary>Answers truly, each call after some seconds.</summary>
    Slow,

    /// <summary>Has restarted: forgets who subscribed to its events, and does so again every time it is asked.</summary>
    Forgets,

    /// <summary>Shows a topology that contradicts itself: one drive in two arrays.</summary>
    Contradicts,

    /// <summary>Says that it rebuilds, and not how far it is.</summary>
    Vague,

    /// <summary>One drive's resource, that of bay 5, answers an error; the rest answers truly.</summary>
    Patchy,
}
