using System.Text;

namespace Nailcrow.Core.People.SigningIn;

/// <summary>
/// Which texts look like one another: each is reduced to what the eye makes of it (the idea of UTS #39, with the few characters
/// that a sign-in name or a person's name has). Two that come to the same can be taken for each other.
/// </summary>
public static class LookAlike
{
    private const string Eyes = "0o1lil5s2z8b$s@a|l!l";

    // Greek capitals look like other letters than their small ones do.
    private const string Capitals = "ΑaΒbΕeΖzΗhΙlΚkΜmΝnΟoΡpΤtΥyΧx";

    // Letters of other alphabets that are drawn as Latin ones, each with the Latin one after it: Cyrillic, then Greek, then
    // Latin with a dot, a stroke or none at all.
    private const string Drawn = "аaвbеeкkмmнhоoрpсcтtуyхxіlјjѕsԁdһhԛqԝwгrпn" + "αaβbεeιlκkνvοoρpτtυuχxωwηn" + "ılłløoðdđdħhŀl";

    public static bool Are(string one, string other) => Of(one) == Of(other);

    /// <summary>What the eye makes of it: letters and digits only, small, those alike as one of them.</summary>
    public static string Of(string text)
    {
        var seen = new StringBuilder(text.Length);
        foreach (var c in text)
        {
            var plain = c is >= '\uFF01' and <= '\uFF5E' ? (char)(c - 0xFEE0) : c; // full width
            var small = Twin(plain, Capitals) ?? char.ToLowerInvariant(plain);
            if (char.IsLetterOrDigit(small) || small is '$' or '@' or '|' or '!')
                seen.Append(Twin(small, Drawn) ?? Twin(small, Eyes) ?? small);
        }
        return seen.Replace("rn", "m").Replace("vv", "w").Replace("cl", "d").ToString();
    }

    private static char? Twin(char c, string pairs)
    {
        for (var at = 0; at + 1 < pairs.Length; at += 2)
            if (pairs[at] == c)
                return pairs[at + 1];
        return null;
    }
}
