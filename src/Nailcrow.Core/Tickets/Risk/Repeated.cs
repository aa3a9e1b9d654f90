using Nailcrow.Core.Intake;

namespace Nailcrow.Core.Tickets.Risk;

/// <summary>
/// The same thing seen of one drive, once or often: whoever types it again has counted it again, so counts are not added up.
/// </summary>
internal sealed record Repeated(EvidenceKind Kind, string Text, int? Count, DateTimeOffset First, DateTimeOffset Last)
{
    // A drive that was in trouble and has been quiet since is in less of it. What is older than a season counts half, than a year a quarter.
    private static readonly TimeSpan Season = TimeSpan.FromDays(90);
    private static readonly TimeSpan Year = TimeSpan.FromDays(365);

    public static IReadOnlyList<Repeated> Of(IEnumerable<Evidence> evidence) =>
        [
            .. evidence
                .GroupBy(e => (e.Kind, e.Text))
                .Select(g => new Repeated(g.Key.Kind, g.Key.Text, g.Max(e => e.Count), g.Min(e => e.At), g.Max(e => e.At))),
        ];

    public int Weight(DateTimeOffset now) =>
        (now - Last) switch
        {
            var age when age > Year => Whole / 4,
            var age when age > Season => Whole / 2,
            _ => Whole,
        };

    public string Told()
    {
        var times = Count is { } count && !Text.Contains($"{count} times", StringComparison.Ordinal) ? $"{count} times" : null;
        var days =
            First.UtcDateTime.Date == Last.UtcDateTime.Date ? null : $"{First.UtcDateTime:yyyy-MM-dd} to {Last.UtcDateTime:yyyy-MM-dd}";
        var more = string.Join(", ", new[] { times, days }.OfType<string>());
        return more.Length == 0 ? Text : $"{Text} ({more})";
    }

    private int Whole =>
        Kind switch
        {
            EvidenceKind.SelfTest => 60,
            EvidenceKind.Alert => 50,
            EvidenceKind.LogLines => 30 + (int)Math.Min(20, 10 * Math.Log10(Math.Max(1, Count ?? 1))),
            EvidenceKind.Counters or EvidenceKind.Lamp => 30,
            EvidenceKind.Mail => 20,
            EvidenceKind.LinkSpeed => 15,
            EvidenceKind.Symptom => 10,
            _ => 0,
        };
}
