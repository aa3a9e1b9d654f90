using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Core.People.SecondFactor;

/// <summary>
/// A code on paper for the day on which the device is lost: good once, in place of what the device would show. Ten letters out of 27, some
/// 47 bits, behind a password and the limits of signing in.
/// </summary>
public static class RecoveryCode
{
    /// <summary>How many somebody is given: a lost device is one of them, and nobody looks after more paper.</summary>
    public const int Many = 10;

    public const int Length = 10;

    /// <summary>In two groups, as it is printed.</summary>
    public static string Told(string code) => $"{code[..(Length / 2)]}-{code[(Length / 2)..]}";

    /// <summary>What was typed, as it is kept; null where it can be none: spaces, hyphens and capitals are how people write.</summary>
    public static string? Read(string typed)
    {
        var code = string.Concat(typed.Where(c => !char.IsWhiteSpace(c) && c != '-')).ToLowerInvariant();
        return code.Length == Length && code.All(c => SpokenLetters.All.Contains(c, StringComparison.Ordinal)) ? code : null;
    }
}
