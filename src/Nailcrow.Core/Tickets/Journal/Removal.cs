namespace Nailcrow.Core.Tickets.Journal;

/// <summary>That a picture is kept no more: when it went, who decided it, and why.</summary>
public sealed record Removal(DateTimeOffset At, string By, string Because);
