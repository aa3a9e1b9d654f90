namespace Nailcrow.Cli.Shell;

/// <summary>What a command's end tells a script. Documented in docs/interface.md; never renumbered.</summary>
internal enum ExitCode
{
    Done = 0,
    Refused = 1,
    Usage = 2,
    NotReachable = 3,
    NotAllowed = 4,
}
