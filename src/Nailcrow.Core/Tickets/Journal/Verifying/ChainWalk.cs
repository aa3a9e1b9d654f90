using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tickets.Journal.Verifying;

/// <summary>
/// Computes every chain again, over entries in order of arrival, from the text that was stored: no type of ours reads it. What
/// it remembers is the last number and hash of each ticket.
/// </summary>
public sealed class ChainWalk
{
    private const int HashDigits = 64;

    private readonly Dictionary<long, (long Seq, string Hash)> _heads = [];
    private byte[] _buffer = new byte[4096];

    /// <summary>The last number and hash of each ticket so far.</summary>
    public IReadOnlyDictionary<long, (long Seq, string Hash)> Heads => _heads;

    public long Entries { get; private set; }

    /// <summary>Numbers that are gone, so far.</summary>
    public long Gone { get; private set; }

    /// <summary>What is wrong with the next entry, told to <paramref name="tell"/>.</summary>
    public void Next(StoredEntry entry, Action<Trouble> tell)
    {
        Entries++;
        var (last, hash) = _heads.TryGetValue(entry.Ticket, out var head) ? head : (0, HashChain.Start);
        var text = Encoded(hash, entry.Text);
        if (entry.Seq <= last)
            tell(Of(TroubleKind.Changed, entry, $"stands after number {last} of its ticket"));
        else if (entry.Seq > last + 1)
        {
            Gone += entry.Seq - last - 1;
            tell(
                new(
                    TroubleKind.Missing,
                    entry.Ticket,
                    last + 1,
                    $"{TicketNumber.Text(entry.Ticket)}: {Numbers(last + 1, entry.Seq - 1)} missing."
                )
            );
        }
        else if (Computed(text) != entry.Hash)
            tell(Of(TroubleKind.Changed, entry, "is not what was written"));
        if (Differing(entry, text.AsSpan(HashDigits)) is { } differing)
            tell(Of(TroubleKind.Changed, entry, differing));
        _heads[entry.Ticket] = (Math.Max(last, entry.Seq), entry.Hash);
    }

    public static string Numbers(long from, long to) => from == to ? $"entry {from} is" : $"entries {from} to {to} are";

    private ArraySegment<byte> Encoded(string previous, string text)
    {
        var most = HashDigits + Encoding.UTF8.GetMaxByteCount(text.Length);
        if (_buffer.Length < most)
            _buffer = new byte[most];
        var written = Encoding.UTF8.GetBytes(previous, _buffer);
        return new(_buffer, 0, written + Encoding.UTF8.GetBytes(text, _buffer.AsSpan(written)));
    }

    private static string Computed(ReadOnlySpan<byte> chained)
    {
        Span<byte> hash = stackalloc byte[SHA256.HashSizeInBytes];
        SHA256.HashData(chained, hash);
        return Convert.ToHexStringLower(hash);
    }

    /// <summary>A column is only for finding; one that says other than the text would have the entry found wrongly.</summary>
    private static string? Differing(StoredEntry entry, ReadOnlySpan<byte> text)
    {
        try
        {
            var said = Envelope.Of(text);
            return said.Kind != entry.Kind ? $"is listed as '{entry.Kind}' and says '{said.Kind}'"
                : said.By != entry.By ? $"is listed as by '{entry.By}' and says '{said.By}'"
                : said.At.UtcTicks != entry.At.UtcTicks ? "is listed at another time than it says"
                : said.RecordedAt.UtcTicks != entry.RecordedAt.UtcTicks ? "is listed as recorded at another time than it says"
                : said.Ticket != entry.Ticket || said.Seq != entry.Seq || said.Id != entry.Id
                    ? $"says of itself that it is {TicketNumber.Text(said.Ticket)} entry {said.Seq} ({said.Id})"
                : null;
        }
        catch (Exception e) when (e is JsonException or FormatException or InvalidOperationException)
        {
            return "has a text that is none of an entry";
        }
    }

    private static Trouble Of(TroubleKind kind, StoredEntry entry, string what) =>
        new(kind, entry.Ticket, entry.Seq, $"{TicketNumber.Text(entry.Ticket)} entry {entry.Seq} ({entry.Id}) {what}.");
}
