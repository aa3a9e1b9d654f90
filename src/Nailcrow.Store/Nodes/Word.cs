namespace Nailcrow.Store.Nodes;

/// <summary>What nodes tell each other, as it stands in a word on the channel.</summary>
internal enum Word
{
    /// <summary>Something was written to the journal.</summary>
    Entries,

    /// <summary>The same, and something of it has to leave Nailcrow.</summary>
    Errands,

    /// <summary>Something came in that a ticket may have to hear of.</summary>
    Alerts,
}
