namespace Nailcrow.Core.Tickets.Journal;

/// <summary>That a picture is kept no more: when it went, who decided it, and why.</summary>
public sealed record Removal(DateTimeOffset At, string By, string Because)
{
    /// <summary>As part of a sentence, without its full stop. A method, so that it is no part of the JSON.</summary>
    public string Told() => $"{By} removed it on {At.UtcDateTime:yyyy-MM-dd} ({Because.TrimEnd('.')})";
}
