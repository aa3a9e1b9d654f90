using System.Security.Cryptography;
using Nailcrow.Core.People.SecondFactor;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.SecondFactor;

/// <summary>Codes on paper: made ten at a time, kept as what they hash to with a salt of each person's own (OWASP ASVS 4, 2.6.2).</summary>
internal sealed class RecoveryCodes(SecondFactors factors, PasswordHashing hashing)
{
    private const int SaltBytes = 16;

    /// <returns>To be shown this once; null where too many wait to be hashed.</returns>
    public async Task<IReadOnlyList<string>?> MakeAsync(Doer by, CancellationToken ct)
    {
        var (salt, codes) = (RandomNumberGenerator.GetBytes(SaltBytes), new string[RecoveryCode.Many]);
        var hashes = new List<string>();
        for (var nth = 0; nth < codes.Length; nth++)
        {
            codes[nth] = RandomNumberGenerator.GetString(SpokenLetters.All, RecoveryCode.Length);
            if (await hashing.DeriveAsync(codes[nth], salt, ct) is not { } hash)
                return null;
            hashes.Add(hash);
        }
        await factors.PutRecoveryAsync(by, salt, hashes, ct);
        return [.. codes.Select(RecoveryCode.Told)];
    }

    /// <summary>Whether it is one that is left; it is not any more then. Null where too many wait.</summary>
    public async Task<bool?> ShowAsync(Doer by, string code, CancellationToken ct)
    {
        // Hashed with a salt of nobody's where they have none: it takes as long.
        var salt = await factors.RecoverySaltAsync(by.Name, ct) ?? new byte[SaltBytes];
        return await hashing.DeriveAsync(code, salt, ct) is { } hash ? await factors.ShowRecoveryAsync(by, hash, ct) : null;
    }
}
