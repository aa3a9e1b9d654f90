using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tickets.Journal.Sealing;

/// <summary>How far a ticket's chain had come when it was sealed.</summary>
public sealed record SealedTicket(long Ticket, long Entries, string Hash);

/// <summary>How far the ledger of parts had come: its lines in order of arrival, and a chain over their hashes.</summary>
/// <param name="Hash">In hex; <see cref="Canonical.HashChain.Start"/> where there was no line yet.</param>
public sealed record SealedLedger(long Lines, string Hash)
{
    public static readonly SealedLedger Empty = new(0, Canonical.HashChain.Start);

    /// <summary>The same with the line that arrived next.</summary>
    public SealedLedger With(string hash) => new(Lines + 1, Canonical.HashChain.Next(Hash, hash));
}

/// <summary>How far the security log had come; it is one chain, so that its last hash covers all of it.</summary>
/// <param name="Hash">Of its last line, in hex; <see cref="Canonical.HashChain.Start"/> where there was none yet.</param>
public sealed record SealedLog(long Lines, string Hash)
{
    public static readonly SealedLog Empty = new(0, Canonical.HashChain.Start);
}

/// <summary>
/// A signed statement of everything that had been written at a moment. docs/journal.md describes its text line by line.
/// </summary>
/// <param name="Number">From 1; each seal names the hash of the one before.</param>
/// <param name="Entries">How many entries it covers, in order of arrival over all tickets.</param>
/// <param name="Root">The root of their Merkle tree, 32 bytes in hex.</param>
/// <param name="Before">SHA-256 of the text of the seal before, in hex; 64 zeros for the first.</param>
/// <param name="Blocks">Roots of the whole blocks of <see cref="BlockEntries"/> entries, so that what was changed can be found.</param>
/// <param name="Tickets">The chains that grew since the seal before.</param>
/// <param name="Ledger">The ledger of parts; null in a seal that was made before there was one.</param>
/// <param name="Security">The security log; likewise.</param>
public sealed record Seal(
    long Number,
    DateTimeOffset SealedAt,
    long Entries,
    string Root,
    string Before,
    IReadOnlyList<string> Blocks,
    IReadOnlyList<SealedTicket> Tickets,
    SealedLedger? Ledger = null,
    SealedLog? Security = null
)
{
    // A power of two, so that a block is a whole subtree; 20 million entries a year are 20,000 lines.
    public const int BlockEntries = 1024;

    private const string Form = "nailcrow-seal/1";

    public string Signed(ISealKey key)
    {
        var said = Told() + $"key {Convert.ToBase64String(key.Public)}\n";
        return said + $"signature {Convert.ToBase64String(key.Sign(Encoding.UTF8.GetBytes(said)))}\n";
    }

    public static string HashOf(string text) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)));

    private string Told()
    {
        var text = new StringBuilder();
        void Line(FormattableString line) => text.Append(line.ToString(CultureInfo.InvariantCulture)).Append('\n');
        Line($"{Form}");
        Line($"number {Number}");
        Line($"sealed-at {SealedAt.UtcDateTime:yyyy-MM-ddTHH:mm:ssZ}");
        Line($"entries {Entries}");
        Line($"root {Root}");
        Line($"before {Before}");
        foreach (var block in Blocks)
            Line($"block {block}");
        foreach (var ticket in Tickets)
            Line($"ticket {TicketNumber.Text(ticket.Ticket)} {ticket.Entries} {ticket.Hash}");
        if (Ledger is { } parts)
            Line($"ledger {parts.Lines} {parts.Hash}");
        if (Security is { } log)
            Line($"security {log.Lines} {log.Hash}");
        return text.ToString();
    }

    /// <summary>Reads a seal and checks its own signature.</summary>
    public static Parsed<ReadSeal> Parse(string text, ISealKey anyKey)
    {
        var lines = text.ReplaceLineEndings("\n").Split('\n', StringSplitOptions.RemoveEmptyEntries);
        if (
            lines is not [Form, .., var keyLine, var signatureLine]
            || Word(keyLine, "key") is not { } key
            || Word(signatureLine, "signature") is not { } signature
        )
            return No($"This is no seal: it begins with '{Form}' and ends with a key and a signature.");
        if (!IsSigned(string.Concat(lines[..^1].Select(l => l + "\n")), key, signature, anyKey))
            return No("The seal's signature does not hold: the seal itself was changed.");
        try
        {
            var seal = new Seal(
                Count(lines, "number"),
                DateTimeOffset.Parse(
                    One(lines, "sealed-at"),
                    CultureInfo.InvariantCulture,
                    DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal
                ),
                Count(lines, "entries"),
                One(lines, "root"),
                One(lines, "before"),
                [.. lines.Select(l => Word(l, "block")).OfType<string>()],
                [.. lines.Select(l => Word(l, "ticket")).OfType<string>().Select(Ticket)],
                lines.Select(l => Word(l, "ledger")).OfType<string>().Select(LedgerOf).FirstOrDefault(),
                lines.Select(l => Word(l, "security")).OfType<string>().Select(LogOf).FirstOrDefault()
            );
            return new Parsed<ReadSeal>.Ok(new(seal, Convert.ToHexStringLower(SHA256.HashData(Convert.FromBase64String(key)))));
        }
        catch (FormatException e)
        {
            return No($"This seal cannot be read: {e.Message}");
        }
    }

    private static SealedTicket Ticket(string words) =>
        words.Split(' ') is [var name, var entries, var hash] && TicketNumber.Parse(name) is Parsed<long>.Ok(var number)
            ? new(number, long.Parse(entries, CultureInfo.InvariantCulture), hash)
            : throw new FormatException($"'ticket {words}' is not a ticket, its entries and a hash.");

    private static SealedLedger LedgerOf(string words) =>
        words.Split(' ') is [var lines, var hash]
            ? new(long.Parse(lines, CultureInfo.InvariantCulture), hash)
            : throw new FormatException($"'ledger {words}' is not a number of lines and a hash.");

    private static SealedLog LogOf(string words) =>
        words.Split(' ') is [var lines, var hash]
            ? new(long.Parse(lines, CultureInfo.InvariantCulture), hash)
            : throw new FormatException($"'security {words}' is not a number of lines and a hash.");

    private static long Count(string[] lines, string name) => long.Parse(One(lines, name), CultureInfo.InvariantCulture);

    private static string One(string[] lines, string name) =>
        lines.Select(l => Word(l, name)).OfType<string>().FirstOrDefault() ?? throw new FormatException($"it has no line '{name}'.");

    private static string? Word(string line, string name) =>
        line.StartsWith(name + " ", StringComparison.Ordinal) ? line[(name.Length + 1)..] : null;

    private static bool IsSigned(string said, string key, string signature, ISealKey anyKey)
    {
        try
        {
            return anyKey.Holds(Encoding.UTF8.GetBytes(said), Convert.FromBase64String(signature), Convert.FromBase64String(key));
        }
        catch (FormatException)
        {
            return false;
        }
    }

    private static Parsed<ReadSeal> No(string reason) => new Parsed<ReadSeal>.Refused(reason);
}

/// <summary>A seal whose signature holds, and by which key.</summary>
/// <param name="Fingerprint">SHA-256 of the public key (SubjectPublicKeyInfo, DER), in hex: what to compare with the one that was handed over.</param>
public sealed record ReadSeal(Seal Seal, string Fingerprint);
