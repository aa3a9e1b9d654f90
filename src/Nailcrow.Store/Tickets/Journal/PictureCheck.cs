using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Reading;
using Nailcrow.Core.Tickets.Journal.Verifying;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>Holds the pictures' bytes against the hashes that their entries give.</summary>
/// <param name="after">Only those of entries after that position; 0 for all, and for pictures that no entry tells of.</param>
internal sealed class PictureCheck(long after)
{
    /// <summary>Kinds of entry with a picture beside them, or that say of one that it is kept no more.</summary>
    public static bool IsOf(string kind) => kind is "photo-taken" or "customer-signed-off" or Removed;

    private const string Removed = "picture-removed";

    private readonly Dictionary<Guid, (long Ticket, long Seq, string Sha256)> _expected = [];
    private readonly Dictionary<Guid, (long Ticket, long Seq)> _removed = [];

    public long Looked { get; private set; }

    /// <summary>Read from the text: whether our types can read the rest of it is another question.</summary>
    public void Expect(long position, StoredEntry entry)
    {
        if (
            position > after
            && EntryText.BodyOf(entry.Text) is { ValueKind: JsonValueKind.Object } body
            && (body.TryGetProperty("signature", out var signature) ? signature : body) is { ValueKind: JsonValueKind.Object } picture
            && picture.TryGetProperty("photo", out var photo)
            && photo.ValueKind == JsonValueKind.String
            && photo.TryGetGuid(out var id)
        )
            if (entry.Kind == Removed)
                _removed[id] = (entry.Ticket, entry.Seq);
            else if (
                picture.TryGetProperty("sha256", out var hash)
                && hash.ValueKind == JsonValueKind.String
                && hash.GetString() is { } sha256
            )
                _expected[id] = (entry.Ticket, entry.Seq, sha256);
    }

    public async Task HoldAsync(NailcrowDb db, Action<Trouble> tell, Action<CheckProgress> progress, CancellationToken ct)
    {
        var ids = await db.Photos.Select(p => p.Id).ToListAsync(ct); // one picture at a time in memory
        if (after > 0)
            ids.RemoveAll(id => !_expected.ContainsKey(id) && !_removed.ContainsKey(id));
        foreach (var id in ids)
        {
            var photo = await db.Photos.AsNoTracking().FirstAsync(p => p.Id == id, ct);
            Looked++;
            if (!_expected.Remove(id, out var said))
            {
                if (after == 0)
                    tell(
                        new(
                            TroubleKind.Unexplained,
                            photo.Ticket,
                            null,
                            $"Picture {id} of {TicketNumber.Text(photo.Ticket)} is there, and no entry tells of it."
                        )
                    );
            }
            else if (Convert.ToHexStringLower(SHA256.HashData(photo.Content)) != said.Sha256 || photo.Ticket != said.Ticket)
                tell(
                    new(
                        TroubleKind.Changed,
                        said.Ticket,
                        said.Seq,
                        $"Picture {id} of {TicketNumber.Text(said.Ticket)} entry {said.Seq} is not the one that was taken."
                    )
                );
            if (_removed.TryGetValue(id, out var removed) && removed.Ticket == photo.Ticket)
                tell(
                    new(
                        TroubleKind.Unexplained,
                        photo.Ticket,
                        removed.Seq,
                        $"Picture {id} is there, and {TicketNumber.Text(photo.Ticket)} entry {removed.Seq} says that it is kept no more."
                    )
                );
            if (Looked % 100 == 0)
                progress(new("pictures", Looked, ids.Count));
        }
        foreach (var (id, said) in _expected.Where(e => !_removed.TryGetValue(e.Key, out var removed) || removed.Ticket != e.Value.Ticket))
            tell(
                new(
                    TroubleKind.Missing,
                    said.Ticket,
                    said.Seq,
                    $"Picture {id} of {TicketNumber.Text(said.Ticket)} entry {said.Seq} is not there any more."
                )
            );
    }
}
