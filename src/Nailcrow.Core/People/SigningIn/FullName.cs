using Nailcrow.Core.Terms;

namespace Nailcrow.Core.People.SigningIn;

/// <summary>The name people call somebody by. It may change; whoever it is of does not.</summary>
public static class FullName
{
    public const int Most = 80;

    public static Parsed<string> Parse(string? typed)
    {
        var name = (typed ?? "").Trim();
        if (name.Length is 0 or > Most)
            return new Parsed<string>.Refused($"A full name has 1 to {Most} characters; this has {name.Length}.");
        if (Visible.Text(name) != name)
            return new Parsed<string>.Refused($"'{Visible.Text(name)}' has characters in it that nobody sees; leave them out.");
        return LookAlike.Are(name, Actor.Service.Name)
            ? new Parsed<string>.Refused($"'{name}' could be taken for the service itself; choose another name.")
            : new Parsed<string>.Ok(name);
    }
}
