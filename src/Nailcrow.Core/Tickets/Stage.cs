using System.Text.Json.Serialization;

namespace Nailcrow.Core.Tickets;

/// <summary>How far a ticket has got. Derived from its journal, never set.</summary>
[JsonConverter(typeof(KebabEnum<Stage>))]
public enum Stage
{
    Received,
    Planned,
    OnSite,
    Rebuilding,
    Returning,
    Closed,
    Cancelled,
}
