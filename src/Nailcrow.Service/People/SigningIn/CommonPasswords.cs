using System.IO.Compression;

namespace Nailcrow.Service.People.SigningIn;

/// <summary>
/// Passwords that are commonly used, from lists of those that became known (made from the list in @zxcvbn-ts/language-common 4.1.3,
/// MIT licence; docs/third-party.md). Read when the first password is chosen, and kept.
/// </summary>
internal static class CommonPasswords
{
    private const string File = "common-passwords.txt.gz";

    private static readonly Lazy<HashSet<string>> All = new(Read);

    public static bool Has(string small) => All.Value.Contains(small);

    private static HashSet<string> Read()
    {
        using var packed =
            typeof(CommonPasswords).Assembly.GetManifestResourceStream(File)
            ?? throw new FileNotFoundException($"{File} is not in the build.");
        using var lines = new StreamReader(new GZipStream(packed, CompressionMode.Decompress));
        var all = new HashSet<string>(StringComparer.Ordinal);
        while (lines.ReadLine() is { } line)
            all.Add(line);
        return all;
    }
}
