using System.Text;

namespace Nailcrow.Core.People.SigningIn;

/// <summary>
/// What a password has to be: long, and none that others try first. No rules of letters and signs (NIST SP 800-63B, 3.1.1; OWASP
/// ASVS 4, V2.1).
/// </summary>
public static class Password
{
    public const int Least = 12;
    public const int Most = 128;

    /// <summary>How long one that was given is good for choosing one's own: over a weekend and a day off, no longer (ASVS 4, 2.3.1).</summary>
    public static readonly TimeSpan FirstLasts = TimeSpan.FromDays(7);

    // A run such as 'abcabcabcabc' is as long as what it repeats.
    private const int LongestRepeated = 6;

    /// <param name="isCommon">Whether a word, small letters, is among those that are tried first.</param>
    /// <returns>Why it is no password for this person; null where it is one.</returns>
    public static string? WhyNot(string? password, string name, string fullName, Func<string, bool> isCommon)
    {
        var typed = password ?? "";
        var length = typed.EnumerateRunes().Count();
        if (length is < Least or > Most)
            return $"A password has {Least} to {Most} characters; this has {length}.";
        var small = typed.ToLowerInvariant();
        if (Repeats(small) || isCommon(small) || isCommon(Core(small)))
            return "That password is among those that are tried first; choose one that nobody else would.";
        return Own(name, fullName).FirstOrDefault(small.Contains) is { } own
            ? $"That password has '{own}' in it, which is the first thing that is tried; choose one without."
            : null;
    }

    /// <summary>Names of one's own and the service's, where they are long enough to be no chance.</summary>
    private static IEnumerable<string> Own(string name, string fullName) =>
        fullName
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Append(name)
            .Append(Actor.Service.Name)
            .Where(w => w.Length >= 4)
            .Select(w => w.ToLowerInvariant());

    /// <summary>Without the digits and signs that are put around a word to make it longer.</summary>
    private static string Core(string small)
    {
        var letters = small.AsSpan();
        while (letters.Length > 0 && !char.IsLetter(letters[0]))
            letters = letters[1..];
        while (letters.Length > 0 && !char.IsLetter(letters[^1]))
            letters = letters[..^1];
        return letters.ToString();
    }

    private static bool Repeats(string small) =>
        Enumerable.Range(1, LongestRepeated).Any(unit => Enumerable.Range(0, small.Length).All(at => small[at] == small[at % unit]));
}
