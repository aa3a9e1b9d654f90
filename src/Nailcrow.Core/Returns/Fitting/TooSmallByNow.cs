using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Returns.Fitting;

/// <summary>A part that was large enough by what was known when it was set aside, and is not by what a look has shown since.</summary>
/// <param name="Needed">Bytes that the drive in its place has at least.</param>
internal sealed record TooSmallByNow(ReservedPart Part, long Needed)
{
    /// <summary>The first that still waits to be fitted, each held against the drive it is for; null where none is known to be.</summary>
    public static TooSmallByNow? Of(Ticket ticket)
    {
        for (var nth = 0; nth < ticket.Parts.Count; nth++)
            if (Of(ticket, nth) is { } small)
                return small;
        return null;
    }

    /// <summary>The same of one of its parts.</summary>
    public static TooSmallByNow? Of(Ticket ticket, int nth) =>
        ticket.Parts[nth] is { GivenUp: null, Bytes: > 0 } part
        && !Target.WentIn(ticket, part.Serial)
        && Target.LeastBytes(ticket, nth) is { } needed
        && ByteSize.Labelled(part.Bytes) < needed
            ? new(part, needed)
            : null;

    public string Told() => $"{Part.Serial} has {Part.Bytes:N0} bytes; {Needed:N0} are needed for the array to hold what it holds now.";
}
