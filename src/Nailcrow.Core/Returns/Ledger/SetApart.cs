using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>Why a part lies apart from all stock, and is offered to nobody.</summary>
[JsonConverter(typeof(KebabEnum<SetApart>))]
public enum SetApart
{
    ToBeDestroyed,
    Evidence,

    /// <summary>A new part that never worked.</summary>
    DeadOnArrival,

    /// <summary>It came out of a machine that called it faulty or worn.</summary>
    Failed,
}
