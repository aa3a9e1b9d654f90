using System.Text;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;

namespace Nailcrow.Cli.People;

/// <summary>Passwords that are typed: not shown at a terminal, and a line each where they are piped in.</summary>
internal static class Typed
{
    public static string Hidden(Screen screen, string question)
    {
        if (Console.IsInputRedirected)
            return screen.Ask(question);
        Console.Error.Write(question);
        var typed = new StringBuilder();
        for (var key = Console.ReadKey(intercept: true); key.Key != ConsoleKey.Enter; key = Console.ReadKey(intercept: true))
            if (key.Key == ConsoleKey.Backspace)
                typed.Length = Math.Max(0, typed.Length - 1);
            else
                typed.Append(key.KeyChar);
        Console.Error.WriteLine();
        return typed.ToString();
    }

    /// <summary>A password that is to be: typed twice where nobody sees it.</summary>
    /// <exception cref="UsageProblem">The second is another one.</exception>
    public static string New(Screen screen, string question)
    {
        if (Environment.GetEnvironmentVariable("NAILCROW_NEW_PASSWORD") is { Length: > 0 } said)
            return said;
        var first = Hidden(screen, question);
        return Console.IsInputRedirected || Hidden(screen, "The same again: ") == first
            ? first
            : throw new UsageProblem("Those were two different ones; nothing was changed.");
    }
}
