using System.Text.RegularExpressions;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Supplies;

/// <summary>
/// What has no serial and is counted: screws, drive carriers, cables, labels. Two who call it alike but for case and blanks mean the
/// same. Made only by <see cref="Parse"/>.
/// </summary>
public sealed partial record SupplyName
{
    public const int MostCharacters = 80;

    private SupplyName(string text, string key) => (Text, Key) = (text, key);

    /// <summary>As somebody wrote it, blanks put right.</summary>
    public string Text { get; }

    /// <summary>
    /// The name of its line in the ledger. No serial has a colon, so no part has such a line.
    /// </summary>
    public string Key { get; }

    /// <summary>What begins the name of every line of a supply, and of no part.</summary>
    public const string KeyBegins = "supply:";

    /// <summary>What sorts just behind all of them.</summary>
    public const string KeyEnds = "supply;";

    public override string ToString() => Text;

    public static Parsed<SupplyName> Parse(string? input)
    {
        var text = Blanks().Replace(input ?? "", " ").Trim();
        return text.Length switch
        {
            0 => new Parsed<SupplyName>.Refused("Say what it is: drive carrier, M3 screws, mini cable 0.5 m."),
            > MostCharacters => new Parsed<SupplyName>.Refused(
                $"The name has {text.Length} characters; a supply's has at most {MostCharacters}."
            ),
            _ => new Parsed<SupplyName>.Ok(new(text, KeyBegins + text.ToLowerInvariant())),
        };
    }

    // Control characters and direction marks would make two names of what reads as one.
    [GeneratedRegex(@"[\s\p{Cc}\p{Cf}]+")]
    private static partial Regex Blanks();
}
