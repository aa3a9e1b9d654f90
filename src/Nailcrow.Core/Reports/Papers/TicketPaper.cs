using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>One paper of a ticket, that can be had or not yet.</summary>
/// <param name="About">What tells it from others of its kind: the serial of a drive, or whom a box goes to; null where there is one of its kind.</param>
/// <param name="NotYet">Why it cannot be had now, and what has to be done first; null where it can.</param>
public sealed record TicketPaper(PaperKind Kind, string Title, string? About = null, string? NotYet = null)
{
    private const int LongestName = 60;

    /// <summary>What its file is called: "T-1042 return-label PW16K00217.pdf", in signs that every file system takes.</summary>
    public string FileName(long ticket) => $"{TicketNumber.Text(ticket)} {Words.Of(Kind)}{(About is null ? "" : $" {Safe(About)}")}.pdf";

    private static string Safe(string about) =>
        new([.. about.Trim().Take(LongestName).Select(c => char.IsAsciiLetterOrDigit(c) || c is ' ' or '-' ? c : '-')]);
}
