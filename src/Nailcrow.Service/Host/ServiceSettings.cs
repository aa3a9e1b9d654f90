using System.Net;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Host.Seen;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Store;
using Nailcrow.Store.Moving;

namespace Nailcrow.Service.Host;

/// <summary>What the service is told at start, from the section "Nailcrow" of its configuration.</summary>
public sealed record ServiceSettings
{
    /// <summary>The database file. Default nailcrow.db in the folder it is started from.</summary>
    public string Data { get; init; } = "nailcrow.db";

    /// <summary>A PostgreSQL in place of the file, as "Host=db.firm.example;Database=nailcrow;Username=nailcrow;Password=...": seals
    /// then lie as files where <see cref="Data"/> says, and record and keys on the server. Default none.</summary>
    public string? Database { get; init; }

    /// <summary>What keys in the database are protected by, the same for all nodes: an RSA certificate as PEM, with its private key. Only with
    /// <see cref="Database"/>. Default none: whoever reads the database reads the keys.</summary>
    public TlsFiles? KeysCertificate { get; init; }

    /// <summary>Certificates that keys in the database are under still, while another one takes their place. Default none.</summary>
    public IReadOnlyList<TlsFiles> KeysCertificatesBefore { get; init; } = [];

    /// <summary>The folder of procedure files. Default: procedures.</summary>
    public string Procedures { get; init; } = "procedures";

    /// <summary>How often a machine with a rebuild is asked, in seconds. Default 60, at least 1: a machine's display
    /// moves once in several minutes, and its management processor is slow.</summary>
    public double WatchEverySeconds { get; init; } = 60;

    /// <summary>How far this node's clock may be from the database server's before it takes no part: work, calls and what it writes.</summary>
    public double ClockMayBeOffSeconds { get; init; } = Store.Nodes.NodeClock.UsuallyAllowed.TotalSeconds;

    /// <summary>How often it is looked for pictures that were kept as long as was agreed with their customers, in seconds. Default an
    /// hour, 0.2 to 86,400.</summary>
    public double PicturesEverySeconds { get; init; } = 3_600;

    /// <summary>How often everything written is sealed, in hours. Default 24, 0 for never, at most 720. A seal costs what was
    /// written since the last; what is sealed seldom can be rewritten unnoticed for as long.</summary>
    public double SealEveryHours { get; init; } = 24;

    /// <summary>The administrator made at the first start, when nobody can sign in yet.</summary>
    public FirstAdmin? FirstAdmin { get; init; }

    /// <summary>How often a password is hashed before it is kept or held against what is kept (PBKDF2 with HMAC-SHA-512). Default 210,000,
    /// as OWASP advises, a tenth of a second; 1,000 to 10,000,000, where few is for tests only. It is taken up at each person's next sign-in.</summary>
    public int PasswordRounds { get; init; } = 210_000;

    /// <summary>Roles that take a second factor: whoever has one of them and none sets one up before anything else. Default none.</summary>
    public IReadOnlyList<string> SecondFactor { get; init; } = [];

    /// <summary>A provider of sign-ins (OpenID Connect) that people may come in by. Default none.</summary>
    public ElsewhereSettings? Elsewhere { get; init; }

    /// <summary>Who watches this service from outside.</summary>
    public SeenSettings Seen { get; init; } = new();

    /// <summary>The certificate that https addresses show. Default none.</summary>
    public TlsFiles? Tls { get; init; }

    /// <summary>Listens without TLS at addresses that others reach: behind a proxy that does it. Default false.</summary>
    public bool PlainHttp { get; init; }

    /// <summary>How people reach this service, as https://nailcrow.firm.example: links in papers, mails and calendars lead there. Default:
    /// where it listens.</summary>
    public string? PublicUrl { get; init; }

    /// <summary>Proxies in front, as addresses or networks (10.0.0.5, 10.0.0.0/24): whom they say they speak for is believed. Default none.</summary>
    public IReadOnlyList<string> Proxies { get; init; } = [];

    /// <summary>Names this service answers to, as in the Host header. Default: that of <see cref="PublicUrl"/> and of this machine itself; any
    /// where neither is set.</summary>
    public IReadOnlyList<string> Hosts { get; init; } = [];

    /// <summary>Whether the library is read and proved soon after the start. Default true; without it whoever needs it first waits for that.</summary>
    public bool ReadsAhead { get; init; } = true;

    /// <summary>After how long without work the service gives back the memory that the work took, in seconds. Default 60; 0 for never.</summary>
    public int RestsAfterSeconds { get; init; } = 60;

    /// <exception cref="Microsoft.Extensions.Options.OptionsValidationException">Some are none, or cannot be read.</exception>
    public static ServiceSettings Of(IConfiguration configuration) =>
        SettingsRead.Of<ServiceSettings>(configuration, "Nailcrow", "Intake", "Link", "Outside");

    /// <summary>Where the record is, in words that may be read by anybody: no password is among them.</summary>
    public string Place() => new RecordPlace(Database is null ? Path.GetFullPath(Data) : null, Database).ToString();

    public IEnumerable<IPNetwork> ProxyNetworks() => Proxies.Select(Network).OfType<IPNetwork>();

    public IEnumerable<string> HostNames()
    {
        var named = PublicUrl is { } url && Uri.TryCreate(url, UriKind.Absolute, out var uri) ? [.. Hosts, uri.Host] : Hosts;
        return named.Count == 0 ? ["*"] : [.. named, "localhost", "127.0.0.1", "[::1]"];
    }

    private static IPNetwork? Network(string said) =>
        IPNetwork.TryParse(said, out var network) ? network
        : IPAddress.TryParse(said, out var one) ? new IPNetwork(one, one.GetAddressBytes().Length * 8)
        : null;

    /// <summary>Those of where the record and its keys are.</summary>
    public IEnumerable<string> ProblemsOfThePlace()
    {
        if (string.IsNullOrWhiteSpace(Data))
            yield return "Nailcrow:Data is empty; accepted: a file, such as /var/lib/nailcrow/nailcrow.db.";
        if (Database is not null && StoreRegistration.ProblemOf(Database) is { } unreachable)
            yield return $"Nailcrow:Database cannot be used: {unreachable} Accepted: "
                + "\"Host=db.firm.example;Database=nailcrow;Username=nailcrow;Password=...\".";
        if (KeysCertificate is not null && Database is null)
            yield return "Nailcrow:KeysCertificate is for keys in a database (Nailcrow:Database); beside a file, the folder's rights keep them.";
        else if (KeysCertificate is { } forKeys && (TlsCertificate.Problem(forKeys) ?? Keys.Problem(forKeys)) is { } noKeys)
            yield return $"Nailcrow:KeysCertificate: {noKeys}";
        if (KeysCertificatesBefore.Count > 0 && KeysCertificate is null)
            yield return "Nailcrow:KeysCertificatesBefore is for certificates whose place Nailcrow:KeysCertificate takes, and that is not given.";
        foreach (var (nth, earlier) in KeysCertificatesBefore.Index())
            if ((TlsCertificate.Problem(earlier) ?? Keys.Problem(earlier)) is { } noEarlier)
                yield return $"Nailcrow:KeysCertificatesBefore:{nth}: {noEarlier}";
    }

    /// <summary>All faults at once, each as a sentence.</summary>
    public IEnumerable<string> Problems()
    {
        foreach (var problem in ProblemsOfThePlace())
            yield return problem;
        if (ClockMayBeOffSeconds is not (>= 1 and <= 1_000_000_000))
            yield return $"Nailcrow:ClockMayBeOffSeconds is {ClockMayBeOffSeconds}; accepted: 1 to 1000000000.";
        if (WatchEverySeconds is < 1 or > 3600)
            yield return $"Nailcrow:WatchEverySeconds is {WatchEverySeconds}; accepted: 1 to 3600.";
        if (PicturesEverySeconds is < 0.2 or > 86_400)
            yield return $"Nailcrow:PicturesEverySeconds is {PicturesEverySeconds}; accepted: 0.2 to 86400.";
        if (SealEveryHours is < 0 or > 720)
            yield return $"Nailcrow:SealEveryHours is {SealEveryHours}; accepted: 0 to 720, 0 for never.";
        if (RestsAfterSeconds is < 0 or > 86_400)
            yield return $"Nailcrow:RestsAfterSeconds is {RestsAfterSeconds}; accepted: 0 to 86400, 0 for never.";
        if (PasswordRounds is < 1_000 or > 10_000_000)
            yield return $"Nailcrow:PasswordRounds is {PasswordRounds}; accepted: 1000 to 10000000.";
        foreach (var word in SecondFactor)
            if (!Words.Parse<Role>(word, "role").Is(out _, out var noRole))
                yield return $"Nailcrow:SecondFactor: {noRole}";
        foreach (var problem in Seen.Problems())
            yield return problem;
        foreach (var problem in Elsewhere?.Problems() ?? [])
            yield return problem;
        if (Tls is { } files && TlsCertificate.Problem(files) is { } noCertificate)
            yield return noCertificate;
        if (PublicUrl is { } url && !(Uri.TryCreate(url, UriKind.Absolute, out var uri) && uri.Scheme is "http" or "https"))
            yield return $"Nailcrow:PublicUrl is '{url}'; write one like https://nailcrow.firm.example.";
        foreach (var proxy in Proxies.Where(p => Network(p) is null))
            yield return $"Nailcrow:Proxies has '{proxy}'; accepted: an address or a network, such as 10.0.0.5 or 10.0.0.0/24.";
        if (!Directory.Exists(Procedures))
            yield return $"Nailcrow:Procedures is '{(Procedures.Length == 0 ? "" : Path.GetFullPath(Procedures))}', which is no folder.";
        if (!string.IsNullOrWhiteSpace(Data) && Path.GetDirectoryName(Path.GetFullPath(Data)) is { } folder && !Directory.Exists(folder))
            yield return $"Nailcrow:Data is in '{folder}', which is no folder.";
    }
}

public sealed record FirstAdmin(string Name, string Password);
