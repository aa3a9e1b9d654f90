using Nailcrow.Core.Terms;

namespace Nailcrow.Core.People.SigningIn;

/// <summary>
/// What somebody signs in with, and what every entry they write says of who wrote it. It is given once: the record would not know
/// another one.
/// </summary>
public static class SignInName
{
    public const int Least = 2;
    public const int Most = 40;

    /// <summary>Who the service itself writes as, whoever is at the machine itself, and what could be taken for them.</summary>
    private static readonly string[] Reserved = [Actor.Service.Name, "nailcrow-service", "service", "system", "root", Elsewhere];

    /// <summary>Who the security log says it was, of what a provider of sign-ins said of somebody.</summary>
    public const string Elsewhere = "elsewhere";

    private static string Form => $"accepted: {Least} to {Most} of a to z, 0 to 9, dot and hyphen, with a letter or digit at both ends";

    /// <param name="typed">As somebody typed it.</param>
    /// <param name="others">The names of everybody there is.</param>
    public static Parsed<string> Parse(string? typed, IEnumerable<string> others)
    {
        var name = (typed ?? "").Trim();
        if (!HasTheForm(name))
            return No($"'{Visible.Text(name)}' is no name to sign in with; {Form}.");
        if (Reserved.FirstOrDefault(own => LookAlike.Are(own, name)) is { } reserved)
            return No($"'{name}' could be taken for the service itself ('{reserved}'); choose another name.");
        return others.FirstOrDefault(other => LookAlike.Are(other, name)) switch
        {
            null => new Parsed<string>.Ok(name),
            var same when same == name => No($"There is a '{name}' already; names are given once."),
            var like => No($"'{name}' looks like '{like}', who is somebody else; choose another name."),
        };
    }

    private static Parsed<string> No(string reason) => new Parsed<string>.Refused(reason);

    private static bool HasTheForm(string name) =>
        name.Length is >= Least and <= Most
        && name.All(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c is '.' or '-')
        && char.IsAsciiLetterOrDigit(name[0])
        && char.IsAsciiLetterOrDigit(name[^1]);
}
