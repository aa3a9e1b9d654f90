namespace Nailcrow.Core.Tickets.Ending;

/// <summary>Something recorded that contradicts something else recorded. It has to be settled before the ticket closes.</summary>
/// <param name="Id">Made from the entry that raised it and what it is about, so that every fold gives the same one.</param>
public sealed record Discrepancy(string Id, string About, string Sentence, DateTimeOffset At, string By)
{
    /// <summary>The entry that raised it.</summary>
    public Guid Entry { get; init; }

    public string? SettledBy { get; init; }

    public string? Settlement { get; init; }

    public bool IsOpen => SettledBy is null;
}
