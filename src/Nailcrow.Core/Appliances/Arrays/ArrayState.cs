using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Arrays;

[JsonConverter(typeof(KebabEnum<ArrayState>))]
public enum ArrayState
{
    Whole,
    Degraded,
    Rebuilding,
    Failed,
}
