using System.Security.Cryptography;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People.SigningIn;

/// <summary>
/// Hashes and holds passwords, few at a time: each takes a core for a tenth of a second on purpose, and a hundred who sign in at once
/// must not take it from those who are in.
/// </summary>
internal sealed class PasswordHashing(IPasswordHasher<Person> hasher)
{
    // Whoever comes beyond this waits longer than anybody does.
    private const int MostWaiting = 150;

    private static readonly Person Nobody = new();

    private readonly SemaphoreSlim _turns = new(Math.Max(1, Environment.ProcessorCount / 2));

    // What the password of somebody who does not exist is held against, so that it takes as long.
    private readonly Lazy<string> _nobodys = new(() => hasher.HashPassword(Nobody, Guid.NewGuid().ToString()));

    private int _waiting;

    /// <returns>Null where too many wait already.</returns>
    public Task<string?> HashAsync(string password, CancellationToken ct) =>
        InTurnAsync<string>(() => hasher.HashPassword(Nobody, password), ct);

    // A recovery code's 47 bits stand behind this many rounds for whoever has the database, and behind the limits for whoever has not.
    private const int RecoveryRounds = 20_000;

    /// <summary>PBKDF2 with HMAC-SHA-512, in hex, to be looked up.</summary>
    /// <returns>Null where too many wait already.</returns>
    public Task<string?> DeriveAsync(string text, byte[] salt, CancellationToken ct) =>
        InTurnAsync<string>(
            () => Convert.ToHexString(Rfc2898DeriveBytes.Pbkdf2(text, salt, RecoveryRounds, HashAlgorithmName.SHA512, outputLength: 32)),
            ct
        );

    /// <param name="hash">Null for somebody who has none, or does not exist: it takes as long, and is never right.</param>
    /// <returns>Null where too many wait already.</returns>
    public async Task<PasswordVerificationResult?> HoldAsync(string? hash, string password, CancellationToken ct)
    {
        var held = await InTurnAsync<object>(() => hasher.VerifyHashedPassword(Nobody, hash ?? _nobodys.Value, password), ct);
        return held is null ? null
            : hash is null ? PasswordVerificationResult.Failed
            : (PasswordVerificationResult)held;
    }

    private async Task<T?> InTurnAsync<T>(Func<T> work, CancellationToken ct)
        where T : class
    {
        if (Interlocked.Increment(ref _waiting) > MostWaiting)
        {
            Interlocked.Decrement(ref _waiting);
            return null;
        }
        try
        {
            await _turns.WaitAsync(ct);
            try
            {
                return await Task.Run(work, ct);
            }
            finally
            {
                _turns.Release();
            }
        }
        finally
        {
            Interlocked.Decrement(ref _waiting);
        }
    }
}
