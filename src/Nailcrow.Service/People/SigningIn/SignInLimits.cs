using System.Net;
using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Service.People.SigningIn;

/// <summary>
/// Who has been wrong how often: each name from each address, each address, and each name from addresses that are strange to it. An
/// attacker is slowed down; the person whose name it is signs in from where they always do.
/// </summary>
internal sealed class SignInLimits
{
    // Beyond this the oldest half is forgotten: memory is bounded whoever tries.
    private const int MostKept = 20_000;

    private readonly Lock _lock = new();
    private readonly Dictionary<string, WrongTries> _tries = [];

    /// <summary>One try begins: it counts as wrong until it is taken back.</summary>
    /// <param name="known">The name came in from this address before.</param>
    /// <returns>How long to wait instead; zero where it may be tried.</returns>
    public TimeSpan Begin(string name, string address, bool known, DateTimeOffset now)
    {
        lock (_lock)
        {
            var wait = Of(name, address, known).Max(of => of.Limit.Wait(_tries.GetValueOrDefault(of.Key), now));
            if (wait > TimeSpan.Zero)
                return wait;
            foreach (var (key, limit) in Of(name, address, known))
                _tries[key] = limit.More(_tries.GetValueOrDefault(key), now);
            Forget();
            return TimeSpan.Zero;
        }
    }

    /// <summary>Whether the next try has to wait.</summary>
    public bool Waits(string name, string address, bool known, DateTimeOffset now)
    {
        lock (_lock)
            return Of(name, address, known).Any(of => of.Limit.Wait(_tries.GetValueOrDefault(of.Key), now) > TimeSpan.Zero);
    }

    /// <summary>It was right: what this name had wrong here is forgotten, and the try takes nothing from the others.</summary>
    public void Right(string name, string address, bool known)
    {
        lock (_lock)
            foreach (var (key, limit) in Of(name, address, known))
                if (limit == TryLimit.OfPair)
                    _tries.Remove(key);
                else
                    Less(key);
    }

    /// <summary>It was not tried at all, because too many were at once: nobody was wrong.</summary>
    public void TakeBack(string name, string address, bool known)
    {
        lock (_lock)
            foreach (var (key, _) in Of(name, address, known))
                Less(key);
    }

    private void Less(string key)
    {
        if (_tries.TryGetValue(key, out var tries))
            _tries[key] = tries with { Count = Math.Max(0, tries.Count - 1) };
    }

    private static (string Key, TryLimit Limit)[] Of(string name, string address, bool known)
    {
        (string, TryLimit)[] always = [($"{name}\n{address}", TryLimit.OfPair), ($"\n{Network(address)}", TryLimit.OfAddress)];
        return known ? always : [.. always, ($"{name}\n", TryLimit.OfName)];
    }

    /// <summary>A household or a server has 2^64 addresses of its own (RFC 6177); they are one.</summary>
    private static string Network(string address) =>
        IPAddress.TryParse(address, out var ip) && ip.GetAddressBytes() is { Length: 16 } bytes
            ? Convert.ToHexString(bytes, 0, 8)
            : address;

    private void Forget()
    {
        if (_tries.Count <= MostKept)
            return;
        foreach (var (key, _) in _tries.OrderBy(t => t.Value.Last).Take(MostKept / 2).ToList())
            _tries.Remove(key);
    }
}
