namespace Nailcrow.Core.Returns;

/// <summary>That the data on a drive was erased; what was written on it since is not.</summary>
/// <param name="Entry">The entry that tells of it.</param>
/// <param name="Seq">When that entry came, in the order of arrival: what comes late may have happened before what is told already.</param>
public sealed record Wipe(string Serial, DateTimeOffset At, string By, Guid Entry, long Seq);
