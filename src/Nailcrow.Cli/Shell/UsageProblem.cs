namespace Nailcrow.Cli.Shell;

/// <summary>The command was given something it cannot use; the message says what would be accepted.</summary>
internal sealed class UsageProblem(string sentence) : Exception(sentence);

/// <summary>The command found that something is not as it should be.</summary>
internal sealed class Refusal(string sentence) : Exception(sentence);
