using System.Security.Cryptography;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.People.SigningIn;

/// <summary>A password that somebody gives to somebody else.</summary>
/// <param name="Shown">To be shown this once; null where whoever gave it said it.</param>
internal sealed record FirstPassword(string Hash, string? Shown);

/// <summary>Passwords that are given, and have to be changed by whoever they are for.</summary>
internal sealed class FirstPasswords(PasswordHashing hashing)
{
    private const int Groups = 4;
    private const int Each = 5;

    /// <param name="wanted">Null to have one made: 20 letters, some 95 bits.</param>
    public async Task<Parsed<FirstPassword>> GiveAsync(string? wanted, string name, string fullName, CancellationToken ct)
    {
        var password = wanted ?? Made();
        if (Password.WhyNot(password, name, fullName, CommonPasswords.Has) is { } whyNot)
            return new Parsed<FirstPassword>.Refused(whyNot);
        return await hashing.HashAsync(password, ct) is { } hash
            ? new Parsed<FirstPassword>.Ok(new(hash, wanted is null ? password : null))
            : new Parsed<FirstPassword>.Refused("Very many are signing in at this moment; try again.");
    }

    public static string Made() =>
        string.Join('-', Enumerable.Range(0, Groups).Select(_ => RandomNumberGenerator.GetString(SpokenLetters.All, Each)));
}
