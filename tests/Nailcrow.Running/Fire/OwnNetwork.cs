using System.Diagnostics;

namespace Nailcrow.Running.Fire;

/// <summary>
/// A network namespace with two lines into it: people come on one, the database is at the end of the other, which can stop carrying
/// anything. No program stands between the two as a <see cref="FrozenLine"/> does: the kernel's own TCP has to find out.
/// </summary>
public sealed class OwnNetwork : IDisposable
{
    // Whoever is meant has another: the frame goes out and nobody takes it, which no end is told.
    private const string NobodysAddress = "02:00:00:00:00:99";

    private readonly int _nth = Random.Shared.Next(1, 250);
    private readonly string _name;

    private OwnNetwork() => _name = $"nailcrow-{Environment.ProcessId}-{_nth}";

    /// <summary>Where the database is to listen, seen from within.</summary>
    public string DatabaseAddress => $"10.213.{_nth}.1";

    /// <summary>Where a service within is reached.</summary>
    public string ServiceAddress => $"10.213.{_nth}.6";

    /// <summary>Networks of this kind, as PostgreSQL's <c>pg_hba.conf</c> writes them.</summary>
    public const string All = "10.213.0.0/16";

    private string DatabaseLine => $"nc{_nth}d";

    private string PeoplesLine => $"nc{_nth}p";

    /// <summary>What a program is started through to be within.</summary>
    internal string[] Words => ["ip", "netns", "exec", _name];

    /// <summary>What a service within has to be told.</summary>
    internal string[] Settings => ["--urls", $"http://{ServiceAddress}:0", "--Nailcrow:PlainHttp", "true"];

    /// <returns>Null where there can be none, as for who is not root, or has no iproute2.</returns>
    public static async Task<OwnNetwork?> MakeAsync()
    {
        var made = new OwnNetwork();
        if (!await IpAsync("netns", "add", made._name))
            return null;
        await made.LineAsync(made.DatabaseLine, "db", made.DatabaseAddress, $"10.213.{made._nth}.2");
        await made.LineAsync(made.PeoplesLine, "people", $"10.213.{made._nth}.5", made.ServiceAddress);
        await MustAsync("-n", made._name, "link", "set", "lo", "up");
        return made;
    }

    /// <summary>The database's line carries nothing any more, either way, and neither end is told.</summary>
    public async Task CutAsync()
    {
        await MustAsync("neigh", "replace", $"10.213.{_nth}.2", "lladdr", NobodysAddress, "dev", DatabaseLine, "nud", "permanent");
        await MustAsync("-n", _name, "neigh", "replace", DatabaseAddress, "lladdr", NobodysAddress, "dev", "db", "nud", "permanent");
    }

    public async Task MendAsync()
    {
        await MustAsync("neigh", "del", $"10.213.{_nth}.2", "dev", DatabaseLine);
        await MustAsync("-n", _name, "neigh", "del", DatabaseAddress, "dev", "db");
    }

    public void Dispose() => IpAsync("netns", "del", _name).GetAwaiter().GetResult(); // its lines go with it

    private async Task LineAsync(string outside, string inside, string here, string there)
    {
        await MustAsync("link", "add", outside, "type", "veth", "peer", "name", inside, "netns", _name);
        await MustAsync("addr", "add", $"{here}/30", "dev", outside);
        await MustAsync("link", "set", outside, "up");
        await MustAsync("-n", _name, "addr", "add", $"{there}/30", "dev", inside);
        await MustAsync("-n", _name, "link", "set", inside, "up");
    }

    private static async Task MustAsync(params string[] words)
    {
        if (!await IpAsync(words))
            throw new InvalidOperationException($"'ip {string.Join(' ', words)}' did not end well.");
    }

    private static async Task<bool> IpAsync(params string[] words)
    {
        try
        {
            using var process = Process.Start(new ProcessStartInfo("ip", words) { RedirectStandardError = true });
            if (process is null)
                return false;
            await process.StandardError.ReadToEndAsync();
            await process.WaitForExitAsync();
            return process.ExitCode == 0;
        }
        catch (System.ComponentModel.Win32Exception)
        {
            return false; // it is not installed
        }
    }
}
