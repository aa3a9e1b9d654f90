using Nailcrow.Core.Tickets.Journal.Verifying;

namespace Nailcrow.Client.Admin;

/// <summary>What holding everything that is kept against itself found.</summary>
/// <param name="Sealed">How many entries it was held against a seal for; 0 without one.</param>
/// <param name="Troubles">What is wrong, the first thousand; empty where all holds.</param>
/// <param name="More">How many more there are.</param>
/// <param name="Movements">Lines of the ledger of parts.</param>
/// <param name="SecurityLines">Lines of the security log.</param>
public sealed record Verified(
    long Tickets,
    long Entries,
    long Pictures,
    long Sealed,
    IReadOnlyList<Trouble> Troubles,
    long More,
    long Movements = 0,
    long SecurityLines = 0
)
{
    public bool Holds => Troubles.Count == 0;
}

/// <summary>A line of what is said while it is being verified: how far it is, or in the last line what was found, or why it stopped.</summary>
/// <param name="What">entries, pictures or lists.</param>
public sealed record VerifyNews(string? What = null, long Done = 0, long Of = 0, Verified? Found = null, string? Problem = null);

/// <param name="Seal">The text of a seal to hold the record against; left out, the newest one beside the database.</param>
/// <param name="RecordOnly">Leaves out what takes longest: reading every entry, and the lists.</param>
public sealed record VerifyAsk(string? Seal = null, bool RecordOnly = false);

/// <summary>A seal that was made, and where it lies.</summary>
/// <param name="Fingerprint">SHA-256 of the key it was signed with; hand it over by another way than the seals.</param>
public sealed record SealMade(string Text, long Number, long Entries, string File, string Fingerprint);

/// <summary>How many tickets the lists were made again from.</summary>
public sealed record Rebuilt(long Tickets);

/// <summary>An error as RFC 9457 tells it; the detail says what to do.</summary>
public sealed record Problem(string? Title, int? Status, string? Detail, string? Type = null);
