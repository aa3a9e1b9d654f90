using System.Reflection;

namespace Nailcrow.Store.Nodes;

/// <summary>Which release this is, and the one before, which runs beside it while nodes are upgraded one after the other.</summary>
public static class Release
{
    public static string Version { get; } = typeof(Release).Assembly.GetName().Version?.ToString(3) ?? "?";

    /// <summary>The release before this one.</summary>
    public const string Before = "0.1.0";

    /// <summary>The state of our sources that it was built from.</summary>
    public const string SourcesBefore = "e0bd57bbd83347f38bf12aee9b3cd97e75bccc03";

    /// <summary>The newest change of tables that it knows. A node that knows less is two releases back, and may write what nobody reads any more.</summary>
    public const string TablesBefore = "20261130015748_AnsweredOnce";

    /// <summary>
    /// How the name of a change begins that takes away what the release before last still used. Any other only adds, so that releases that
    /// do not know it work on.
    /// </summary>
    public const string TakesAway = "Without";

    /// <param name="migration">As the database knows it: when it was made, and its name.</param>
    public static bool IsTakenAwayBy(string migration) =>
        migration.Split('_', 2) is [_, var name] && name.StartsWith(TakesAway, StringComparison.Ordinal);
}

/// <summary>The record has a form that this release cannot work on, or another node works on it that is too old for this release.</summary>
public sealed class OtherReleaseException(string sentence) : Exception(sentence);
