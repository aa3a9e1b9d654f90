using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.People;

namespace Nailcrow.Service.Admin;

/// <summary>What <c>nailcrow-service</c> does instead of serving, by its first word.</summary>
internal static class ServiceCommands
{
    private static readonly Dictionary<string, Func<string[], Task<int>>> ByWord = new()
    {
        ["restore"] = args => Task.FromResult(RestoreCommand.Run(args)),
        ["move"] = MoveCommand.RunAsync,
        ["admit"] = AdmitCommand.RunAsync,
        ["renew-keys"] = RenewKeysCommand.RunAsync,
    };

    private const string Help = $"""
        nailcrow-service [--Nailcrow:SETTING=VALUE ...] [--urls ADDRESS]
            serves, until it is told to stop
        {RestoreCommand.Usual}
            puts a backup where nothing is yet
        {MoveCommand.Usual}
            moves a record from a file to PostgreSQL, or back
        {AdmitCommand.Usual}
            lets somebody in as an administrator
        {RenewKeysCommand.Usual}
            a new key for all secrets that are kept

        Settings may stand in the environment as well, as Nailcrow__SETTING;
        docs/settings.md lists them.
        """;

    /// <returns>How it ended; null where it is to serve.</returns>
    public static async Task<int?> RunAsync(string[] args)
    {
        if (args is ["help" or "--help" or "-h", ..])
        {
            Console.WriteLine(Help);
            return OnTheMachine.Done;
        }
        if (args is not [var word, ..] || word.StartsWith('-') || word.Contains('='))
            return null;
        return ByWord.TryGetValue(word, out var command)
            ? await OnTheMachine.RunAsync(() => command(args))
            : OnTheMachine.Say(
                $"'{word}' is nothing that nailcrow-service does.{Nearest.Hint(word, ByWord.Keys)} Without a word it serves; "
                    + "'nailcrow-service help' tells the rest.",
                OnTheMachine.Usage
            );
    }
}
