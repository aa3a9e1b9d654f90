using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns;

[JsonConverter(typeof(KebabEnum<HolderKind>))]
public enum HolderKind
{
    Depot,
    Engineer,
    Bay,
    Customer,
    Carrier,
    Maker,
    Destroyed,
}

/// <summary>Who answers for a drive or a part.</summary>
public sealed record Holder(HolderKind Kind, string Name)
{
    /// <summary>An engineer's van and a carrier's truck are on the way; every other holder may keep what it has.</summary>
    public bool MayKeep => Kind is not (HolderKind.Engineer or HolderKind.Carrier);

    public override string ToString() => Kind == HolderKind.Destroyed ? "destroyed" : $"{Words.Of(Kind)} {Name}";
}
