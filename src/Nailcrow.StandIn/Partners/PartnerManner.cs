namespace Nailcrow.StandIn.Partners;

/// <summary>How a simulated carrier, maker or mail server behaves.</summary>
internal enum PartnerManner
{
    Well,

    /// <summary>Answers truly, after five seconds.</summary>
    Slow,

    /// <summary>Takes calls and never answers them.</summary>
    Hangs,

    /// <summary>Answers 503.</summary>
    Down,

    /// <summary>Answers a page instead of an answer.</summary>
    Garbage,

    /// <summary>Answers 200 MB.</summary>
    Flood,

    /// <summary>Answers about something else.</summary>
    Wrong,

    /// <summary>Says no to everything, with a reason.</summary>
    Refuses,
}
