using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

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
