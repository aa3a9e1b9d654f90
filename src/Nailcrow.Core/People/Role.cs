using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.People;

/// <summary>What a person may do. One person may hold several.</summary>
[JsonConverter(typeof(KebabEnum<Role>))]
public enum Role
{
    Engineer,
    Dispatcher,
    Stores,
    Lead,
    Admin,
}
