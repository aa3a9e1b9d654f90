namespace Nailcrow.Core.Appliances.Arrays;

/// <summary>An array as its machine reports it, with how many members it was designed to have.</summary>
/// <param name="DesignMembers">Members when whole; the count is held against this, not against what is left.</param>
/// <param name="MemberBytes">Bytes the array uses of each member, where the machine says so.</param>
/// <param name="Groups">Mirrors of striped mirrors, or groups of grouped parity; null where nobody said.</param>
/// <param name="Parity">The m of k-plus-m.</param>
public sealed record DriveArray(
    string Name,
    ArrayLevel Level,
    int DesignMembers,
    ArrayState State,
    long? MemberBytes = null,
    int? Groups = null,
    int? Parity = null
);
