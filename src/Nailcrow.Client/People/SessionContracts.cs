using Nailcrow.Core.People;
using Nailcrow.Core.People.Log;

namespace Nailcrow.Client.People;

/// <param name="Device">What it was signed in with, as far as it says so.</param>
/// <param name="Address">Where from, as an IP address.</param>
/// <param name="This">It is the one that asks.</param>
public sealed record SessionView(Guid Id, DateTimeOffset Since, DateTimeOffset LastSeen, string Device, string Address, bool This);

/// <param name="Roles">What it may act as; a role that its owner has lost counts no more.</param>
/// <param name="Until">Its last day, UTC.</param>
/// <param name="LastUsed">Null where it never was.</param>
public sealed record ScriptKeyView(
    Guid Id,
    string Name,
    IReadOnlyList<Role> Roles,
    bool ReadOnly,
    DateTimeOffset Since,
    DateOnly Until,
    DateTimeOffset? LastUsed
);

/// <summary>Something that was changed of how somebody comes in.</summary>
/// <param name="Says">As one sentence, to whoever it is about.</param>
/// <param name="From">From where it was done, as an IP address; null where nobody knows.</param>
public sealed record SignInChange(DateTimeOffset At, string Says, string? From);

/// <summary>Where somebody is signed in, and what acts in their name.</summary>
/// <param name="Changes">What was changed of how they come in, by themselves or others, newest first.</param>
public sealed record ComingsIn(IReadOnlyList<SessionView> Sessions, IReadOnlyList<ScriptKeyView> Keys, IReadOnlyList<SignInChange> Changes);

/// <param name="Name">1 to 60 characters, as "night report".</param>
/// <param name="Until">Its last day, UTC; at most a year from today.</param>
/// <param name="Roles">Some of one's own, at least one.</param>
/// <param name="ReadOnly">It may look at everything its roles may, and write nothing.</param>
public sealed record ScriptKeyAsk(string Name, DateOnly Until, IReadOnlyList<Role> Roles, bool ReadOnly = false);

/// <param name="Secret">Shown this once. It is sent as a bearer token.</param>
public sealed record ScriptKeyMade(ScriptKeyView Key, string Secret);

/// <summary>A page of the security log, newest first.</summary>
/// <param name="Next">To ask on with as <c>before</c>; null at the end.</param>
public sealed record SecurityPage(IReadOnlyList<SecurityLine> Lines, long? Next);
