using Nailcrow.Core.Terms;

namespace Nailcrow.Core.People.SigningIn;

/// <summary>What somebody signs in with, in words: people know their own devices again by them.</summary>
public static class Device
{
    private const int Most = 80;

    // In this order: each of them names the ones after it too.
    private static readonly (string Sign, string Words)[] Systems =
    [
        ("iPhone", "an iPhone"),
        ("iPad", "an iPad"),
        ("Android", "Android"),
        ("Windows", "Windows"),
        ("Macintosh", "a Mac"),
        ("Linux", "Linux"),
    ];

    /// <param name="userAgent">What it says of itself (RFC 9110, 10.1.5); a stranger writes what they like there.</param>
    public static string Told(string? userAgent)
    {
        var said = Visible.Text((userAgent ?? "").Trim());
        if (said.StartsWith("nailcrow/", StringComparison.Ordinal))
            return Cut(said.IndexOf('(') is > 0 and var at ? $"the command on {said[(at + 1)..].TrimEnd(')')}" : "the command");
        if (!said.StartsWith("Mozilla/", StringComparison.Ordinal))
            return said.Length == 0 ? "a program that does not say which" : Cut(said);
        return Systems.FirstOrDefault(s => said.Contains(s.Sign, StringComparison.Ordinal)) is { Words: { } system }
            ? $"a browser on {system}"
            : "a browser";
    }

    private static string Cut(string words) => Shortened.To(words, Most);
}
