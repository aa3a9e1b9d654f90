using System.Text.Json.Serialization;

namespace Nailcrow.Core.Appliances;

[JsonConverter(typeof(KebabEnum<ArrayState>))]
public enum ArrayState
{
    Whole,
    Degraded,
    Rebuilding,
    Failed,
}
