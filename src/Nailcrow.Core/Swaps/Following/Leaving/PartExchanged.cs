using System.Text.RegularExpressions;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Swaps.Following.Leaving;

/// <summary>
/// Another part is to go in than the one a sheet was made for: the sheet names the new one from then on, under an id of its own.
/// What was done stays done, and is not asked again; the sheet as it was made stays in the record.
/// </summary>
internal static class PartExchanged
{
    public static Ticket On(Ticket ticket, string old, string part, Stamp stamp)
    {
        if (ticket is not { Sheet: { } sheet, Run: { } run })
            return ticket;
        var now = Named(sheet, old, part, stamp.Entry);
        return ticket with
        {
            Sheet = now,
            Run = run with { Sheet = now.Id },
            Interrupted =
            [
                .. ticket.Interrupted.Select(left =>
                {
                    var named = Named(left.Sheet, old, part, stamp.Entry);
                    return new Interrupted(named, left.Run with { Sheet = named.Id });
                }),
            ],
        };
    }

    /// <summary>A serial is in a sheet's sentences where it was filled in, and nowhere by chance.</summary>
    private static RunSheet Named(RunSheet sheet, string old, string part, Guid entry)
    {
        if (sheet.Drives?.Any(d => d.PartSerial == old) != true)
            return sheet;
        // As a whole word: one serial may begin like another.
        var named = new Regex($"(?<![A-Za-z0-9]){Regex.Escape(old)}(?![A-Za-z0-9])", RegexOptions.CultureInvariant);
        string? Put(string? text) => text is null ? null : named.Replace(text, part);
        return sheet with
        {
            Id = entry,
            Drives = [.. sheet.Drives.Select(d => d.PartSerial == old ? d with { PartSerial = part } : d)],
            Steps =
            [
                .. sheet.Steps.Select(s =>
                    s with
                    {
                        Say = Put(s.Say) ?? "",
                        See = Put(s.See),
                        Hear = Put(s.Hear),
                        IfNot = Put(s.IfNot),
                        With = s.With is null ? null : [.. s.With.Select(w => Put(w) ?? "")],
                    }
                ),
            ],
        };
    }
}
