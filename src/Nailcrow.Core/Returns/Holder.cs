using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns;

[JsonConverter(typeof(KebabEnum<HolderKind>))]
public enum HolderKind
{
    Depot,

    /// <summary>A person on the way with it.</summary>
    Engineer,
    Bay,
    Customer,
    Carrier,
    Maker,
    Destroyed,

    /// <summary>What a person's van is stocked with.</summary>
    Van,

    /// <summary>Nobody knows where it is, and a lead has written it off.</summary>
    Lost,
}

/// <summary>Who answers for a drive or a part.</summary>
/// <param name="Shelf">In a depot: where it lies there, as its own people call it.</param>
public sealed record Holder(HolderKind Kind, string Name, string? Shelf = null)
{
    /// <summary>An engineer and a carrier are on the way; every other holder may keep what it has.</summary>
    public bool MayKeep => Kind is not (HolderKind.Engineer or HolderKind.Carrier);

    private const string VanOf = "van of ";

    /// <summary>Where a part lies to be used, as people say it: a depot by its name, or "van of ilka" in just these words.</summary>
    public static Holder OfPlace(string place, string? shelf = null) =>
        $"{place.Trim()} ".StartsWith(VanOf, StringComparison.Ordinal) // also where nobody is named
            ? new(HolderKind.Van, $"{place.Trim()} "[VanOf.Length..].Trim())
            : new(HolderKind.Depot, place.Trim(), shelf);

    /// <summary>What somebody named as a depot and is a van, as the van it is.</summary>
    public Holder AsKnown() => Kind == HolderKind.Depot ? OfPlace(Name, Shelf) : this;

    /// <summary>The same the other way round.</summary>
    public string Place() => Kind == HolderKind.Van ? VanOf + Name : Name;

    /// <summary>Where a part with this holder is, as it goes on after "it is".</summary>
    public string Where() =>
        Kind switch
        {
            HolderKind.Destroyed or HolderKind.Lost => Words.Of(Kind),
            HolderKind.Bay or HolderKind.Depot or HolderKind.Van => $"in {this}",
            _ => $"with {this}",
        };

    public override string ToString() =>
        Kind is HolderKind.Destroyed or HolderKind.Lost ? Words.Of(Kind)
        : Kind == HolderKind.Van ? $"the van of {Name}"
        : Shelf is null ? $"{Words.Of(Kind)} {Name}"
        : $"{Words.Of(Kind)} {Name}, shelf {Shelf}";
}
