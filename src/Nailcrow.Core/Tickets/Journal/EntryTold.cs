namespace Nailcrow.Core.Tickets.Journal;

/// <summary>Pieces that the sentences of several kinds of entry have in common.</summary>
internal static class EntryTold
{
    public static string At(string? bay, string? serial) => $"{(bay is null ? "" : $", bay {bay}")}{(serial is null ? "" : $", {serial}")}";

    /// <summary>A word of the interface as people read it: <c>handed-over</c> is "handed over".</summary>
    public static string Said(string word) => word.Replace('-', ' ');

    /// <summary>The journal knows no place: where it is shown in the site's zone, UTC stands beside.</summary>
    public static string Clock(DateTimeOffset at) => $"{at.UtcDateTime:yyyy-MM-dd HH:mm} UTC";
}
