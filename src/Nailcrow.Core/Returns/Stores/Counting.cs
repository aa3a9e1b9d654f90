using Nailcrow.Core.People;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Stores;

/// <summary>Who counts what is where: stores everywhere, and an engineer what lies in their own van, which nobody else looks into.</summary>
public static class Counting
{
    /// <returns>Why not; null where they may.</returns>
    public static string? WhyNot(Actor actor, Holder? at) =>
        actor.MayActAs(Permissions.Of(Permission.KeepStores)) ? null
        : actor.MayActAs(Permissions.Of(Permission.CountOwnVan)) && at is { Kind: HolderKind.Van } && at.Name == actor.Name ? null
        : $"{actor.Name} counts their own van, where they are an engineer; the rest takes the role "
            + $"{string.Join(", ", Permissions.Of(Permission.KeepStores).Select(Words.Of))}.";
}
