namespace Nailcrow.Core.People.SigningIn;

/// <summary>What passwords and codes that we make are made of: said over a telephone or read from paper they spell no word and no doubt.</summary>
public static class SpokenLetters
{
    // No vowels, and nothing that is read as something else.
    public const string All = "bcdfghjkmnpqrstvwxz23456789";
}
