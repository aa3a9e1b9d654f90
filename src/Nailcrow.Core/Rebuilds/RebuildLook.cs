using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Rebuilds;

[JsonConverter(typeof(KebabEnum<RebuildState>))]
public enum RebuildState
{
    NotSeen,
    TooEarly,
    Moving,
    Stalled,
    FellBack,
    ReadAgain,
    NoNews,
    Done,
    Failed,
}

/// <summary>How a rebuild stands now: one state, what was last seen, a range where there is one, and a sentence.</summary>
public sealed record RebuildLook(
    RebuildState State,
    string Sentence,
    Reading? Last = null,
    DateTimeOffset? Since = null,
    TimeLeft? Left = null
);
