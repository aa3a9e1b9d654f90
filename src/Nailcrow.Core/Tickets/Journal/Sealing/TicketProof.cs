namespace Nailcrow.Core.Tickets.Journal.Sealing;

/// <summary>One entry as it was written.</summary>
public sealed record ProvedEntry(string Text, string Hash);

/// <summary>
/// What a customer needs to check, with nothing but this file, that a ticket is contained unchanged in what was sealed. The
/// hash of its last entry covers all before it, so one path is enough. docs/journal.md gives the steps.
/// </summary>
/// <param name="Leaf">Index of the last entry among all, from 0.</param>
/// <param name="Path">Hashes from the leaf's sibling up to the root, in hex.</param>
/// <param name="Seal">The seal's text.</param>
public sealed record TicketProof(
    string Proof,
    string Ticket,
    IReadOnlyList<ProvedEntry> Entries,
    long Leaf,
    IReadOnlyList<string> Path,
    string Seal
)
{
    public const string Form = "nailcrow-proof/1";
}
