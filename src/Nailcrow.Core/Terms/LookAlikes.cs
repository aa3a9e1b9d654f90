namespace Nailcrow.Core.Terms;

/// <summary>Characters that look alike on a worn label, and what a serial may have been that was read wrongly in them.</summary>
internal static class LookAlikes
{
    private static readonly string[] Groups = ["0OQD", "1IL", "2Z", "5S", "6G", "8B"];

    // Of a serial that is all noughts and ones the pairs alone would be thousands.
    private const int Most = 400;

    /// <summary>The one under which all that look like a character are held to be the same.</summary>
    public static char Shape(char c) => Groups.FirstOrDefault(g => g.Contains(c, StringComparison.Ordinal))?[0] ?? c;

    /// <summary>
    /// Whoever misreads does so once or twice, in one character or a row of the same, or takes one for another wherever it stands: these
    /// serials, without the one that was read; at most 400.
    /// </summary>
    public static IEnumerable<string> Of(string serial) =>
        Everywhere(serial).Concat(AtOne(serial)).Concat(AtOne(serial).SelectMany(AtOne)).Where(s => s != serial).Distinct().Take(Most);

    /// <summary>Each character of a group for each other one of it, at all its places; and all of it as digits.</summary>
    private static IEnumerable<string> Everywhere(string serial) =>
        Groups
            .SelectMany(g => g.SelectMany(read => g.Select(meant => serial.Replace(read, meant))))
            .Append(string.Concat(serial.Select(Shape)));

    private static IEnumerable<string> AtOne(string serial) =>
        from place in Enumerable.Range(0, serial.Length)
        from meant in Groups.FirstOrDefault(g => g.Contains(serial[place], StringComparison.Ordinal)) ?? ""
        where meant != serial[place]
        from many in new[] { 1, Row(serial, place) }.Distinct()
        select $"{serial[..place]}{new string(meant, many)}{serial[(place + many)..]}";

    /// <summary>How many of the same follow each other from a place on.</summary>
    private static int Row(string serial, int place) => serial[place..].TakeWhile(c => c == serial[place]).Count();
}
