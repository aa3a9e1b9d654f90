using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances;

/// <summary>What the array makes of the drive in a bay. Says nothing of the drive's health.</summary>
[JsonConverter(typeof(KebabEnum<BayRole>))]
public enum BayRole
{
    Member,
    Filling,
    Spare,
    Dropped,
    Unclaimed,
    Foreign,
    Empty,

    /// <summary>Nobody has said what this bay holds, or what the array makes of it.</summary>
    NotKnown,
}
