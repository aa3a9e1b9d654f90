namespace Nailcrow.Procedures.Proof;

/// <summary>
/// What one walk looks at. A step that is not decided may be done or not, whatever its condition says, and both are followed:
/// so a walk never misses a way, and what does not matter to it does not multiply.
/// </summary>
/// <param name="Decided">The steps, by their places, whose conditions are decided.</param>
/// <param name="Things">The things that are followed as open or closed, each a bit.</param>
/// <param name="Facts">Whether it follows what is known of drives, bays and arrays, or only things.</param>
internal sealed record View(IReadOnlySet<int> Decided, ulong Things, bool Facts)
{
    public static View OfAll(Procedure procedure) => new(Enumerable.Range(0, procedure.Steps.Count).ToHashSet(), ulong.MaxValue, true);
}
