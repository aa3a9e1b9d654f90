namespace Nailcrow.Service.Intake;

/// <summary>Where machines' own messages come in, from the section "Nailcrow:Intake".</summary>
public sealed record IntakeSettings
{
    /// <summary>The address syslog is listened for on. Default 127.0.0.1; 0.0.0.0 for every interface.</summary>
    public string SyslogAddress { get; init; } = "127.0.0.1";

    /// <summary>Port for syslog over UDP and over TCP. Default none; 514 needs a privilege, 5514 is usual without.
    /// 0 takes a free one, which is written to the log.</summary>
    public int? SyslogPort { get; init; }

    /// <summary>Port for syslog over TLS (RFC 5425), with the certificate of Nailcrow:Tls. Default none; 6514 is the one that is registered.</summary>
    public int? SyslogTlsPort { get; init; }

    /// <summary>How machines reach this service, as http://10.0.0.5:7420. Default none: machines are then followed by their
    /// event stream where they offer one, and are asked for no push.</summary>
    public string? PublicUrl { get; init; }

    /// <summary>How often machines' event subscriptions are looked at and renewed, in seconds. Default 60; 1 to 3600.</summary>
    public double SubscribeEverySeconds { get; init; } = 60;

    /// <summary>How long messages are kept that came in, in months. Default 24; 0 for ever, at most 240. What waits for a ticket, or for somebody
    /// to say whose it is, stays as long as it waits; what tickets say of it is in the journal and stays in any case.</summary>
    public int KeepMonths { get; init; } = 24;

    /// <summary>How often it is looked for messages that were kept long enough, in seconds. Default an hour, 0.2 to 86,400.</summary>
    public double TrimEverySeconds { get; init; } = 3_600;

    /// <param name="hasCertificate">There is one that TLS can show.</param>
    public IEnumerable<string> Problems(bool hasCertificate)
    {
        if (!System.Net.IPAddress.TryParse(SyslogAddress, out _))
            yield return $"Nailcrow:Intake:SyslogAddress is '{SyslogAddress}'; accepted: an IP address such as 127.0.0.1 or 0.0.0.0.";
        if (SyslogPort is < 0 or > 65535)
            yield return $"Nailcrow:Intake:SyslogPort is {SyslogPort}; accepted: 0 to 65535.";
        if (SyslogTlsPort is < 0 or > 65535)
            yield return $"Nailcrow:Intake:SyslogTlsPort is {SyslogTlsPort}; accepted: 0 to 65535.";
        if (SyslogTlsPort is not null && !hasCertificate)
            yield return "Nailcrow:Intake:SyslogTlsPort is set, and there is no certificate; Nailcrow:Tls:Certificate and Nailcrow:Tls:Key say where it lies.";
        if (SyslogTlsPort is not null && SyslogPort is null)
            yield return "Nailcrow:Intake:SyslogTlsPort is set without Nailcrow:Intake:SyslogPort; set both, 0 for a free one.";
        if (PublicUrl is { } url && !(Uri.TryCreate(url, UriKind.Absolute, out var uri) && uri.Scheme is "http" or "https"))
            yield return $"Nailcrow:Intake:PublicUrl is '{url}'; write one like http://10.0.0.5:7420.";
        if (KeepMonths is < 0 or > 240)
            yield return $"Nailcrow:Intake:KeepMonths is {KeepMonths}; accepted: 0 to 240, 0 for ever.";
        if (TrimEverySeconds is < 0.2 or > 86_400)
            yield return $"Nailcrow:Intake:TrimEverySeconds is {TrimEverySeconds}; accepted: 0.2 to 86400.";
        if (SubscribeEverySeconds is < 1 or > 3600)
            yield return $"Nailcrow:Intake:SubscribeEverySeconds is {SubscribeEverySeconds}; accepted: 1 to 3600.";
    }
}
