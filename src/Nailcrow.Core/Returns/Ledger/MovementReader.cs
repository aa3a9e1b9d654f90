using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>
/// Reads a line of the ledger straight from its text: a balance reads every line there is, and reading them by their types takes
/// most of its time. What is not written just as we write it is left to the types, and so is why it cannot be read.
/// </summary>
internal static class MovementReader
{
    /// <param name="text">In UTF-8.</param>
    /// <returns>Null where its types have to say what it is, if it is any.</returns>
    public static Movement? Read(ReadOnlySpan<byte> text)
    {
        var line = new CanonicalCursor(text);
        line.Begin();
        // In the order of their names, as the text has them.
        var asset = line.Text("asset"u8);
        var at = line.Moment("at"u8);
        var by = line.Text("by"u8);
        var entry = line.Id("entry"u8);
        var failed = line.Truth("failed"u8);
        var found = line.Word<InspectionFinding>("found"u8);
        var givenUpAs = line.Word<NoReplacement>("givenUpAs"u8);
        var going = line.Named("going"u8) ? Going(ref line) : null;
        var id = line.Id("id"u8);
        var kind = line.Word<MovementKind>("kind"u8);
        var note = line.Text("note"u8);
        var of = line.Id("of"u8);
        var part = line.Named("part"u8) ? Data(ref line) : null;
        var recordedAt = line.Moment("recordedAt"u8);
        var seq = line.Whole("seq"u8);
        var serial = line.Text("serial"u8);
        var ticket = line.Whole("ticket"u8);
        var to = line.Named("to"u8) ? Holding(ref line) : null;
        line.End();
        return line.HoldsToTheEnd && (id, serial, kind, at, by) is ({ } i, { } s, { } k, { } a, { } b)
            ? new(i, s, k, a, b, to, ticket, asset, entry, of, part, going, note, givenUpAs, found, failed)
            {
                Seq = seq ?? 0,
                RecordedAt = recordedAt ?? default,
            }
            : null;
    }

    private static Holder? Holding(ref CanonicalCursor line)
    {
        line.Begin();
        var kind = line.Word<HolderKind>("kind"u8);
        var name = line.Text("name"u8);
        var shelf = line.Text("shelf"u8);
        line.End();
        return (kind, name) is ({ } k, { } n) ? new(k, n, shelf) : Missing<Holder>(ref line);
    }

    private static PartData? Data(ref CanonicalCursor line)
    {
        line.Begin();
        var bytes = line.Whole("bytes"u8);
        var hours = line.Whole("hours"u8);
        var model = line.Text("model"u8);
        var usedIn = line.Text("usedIn"u8);
        line.End();
        return (bytes, model) is ({ } b, { } m) && hours is null or (>= int.MinValue and <= int.MaxValue)
            ? new(m, b, (int?)hours, usedIn)
            : Missing<PartData>(ref line);
    }

    private static Announcement? Going(ref CanonicalCursor line)
    {
        line.Begin();
        var authorisation = line.Text("authorisation"u8);
        var dueBy = line.Day("dueBy"u8);
        var reason = line.Text("reason"u8);
        var to = line.Named("to"u8) ? Holding(ref line) : null;
        line.End();
        return to is null ? Missing<Announcement>(ref line) : new(to, dueBy, authorisation, reason);
    }

    private static T? Missing<T>(ref CanonicalCursor line)
        where T : class
    {
        line.Fail();
        return null;
    }
}
