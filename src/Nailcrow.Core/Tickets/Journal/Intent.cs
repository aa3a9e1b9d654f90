using Nailcrow.Core.People;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>An entry somebody wants written: everything of it that is known before the service has it.</summary>
/// <param name="ClockOffsetMs">How far the sender's clock was behind the service's, in milliseconds.</param>
public sealed record Intent(Guid Id, DateTimeOffset At, long ClockOffsetMs, Actor Actor, EntryBody Body);
