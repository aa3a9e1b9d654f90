namespace Nailcrow.Core.Returns;

/// <summary>That the data on a drive was erased; what was written on it since is not.</summary>
/// <param name="Entry">The entry that tells of it.</param>
public sealed record Wipe(string Serial, DateTimeOffset At, string By, Guid Entry);
