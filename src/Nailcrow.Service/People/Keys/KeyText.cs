using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;

namespace Nailcrow.Service.People.Keys;

/// <summary>
/// A script's key as it is sent: <c>nailcrow-key.ID.SECRET</c>, so that one that lies about is known for what it is. The secret has 256
/// random bits, which nobody guesses: a plain SHA-256 of it is kept.
/// </summary>
internal sealed record KeyText(Guid Id, string Hash)
{
    private const string Begin = "nailcrow-key.";
    private const string Bearer = "Bearer ";
    private const int Longest = 200;

    /// <summary>A new one: what is kept of it, and what is shown once.</summary>
    public static (KeyText Kept, string Shown) New(DateTimeOffset now)
    {
        var (id, secret) = (Guid.CreateVersion7(now), Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(32)));
        return (new(id, HashOf(secret)), $"{Begin}{id:N}.{secret}");
    }

    /// <summary>Null where the header (RFC 6750) holds no key of ours.</summary>
    public static KeyText? Of(string? authorization) =>
        authorization is { Length: <= Longest }
        && authorization.StartsWith(Bearer + Begin, StringComparison.Ordinal)
        && authorization[(Bearer.Length + Begin.Length)..].Split('.') is [var id, var secret]
        && Guid.TryParseExact(id, "N", out var read)
            ? new(read, HashOf(secret))
            : null;

    private static string HashOf(string secret) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(secret)));
}
