namespace Nailcrow.Service.Host.Seen;

/// <summary>Who watches this service from outside, from the section "Nailcrow:Seen" of its configuration.</summary>
public sealed record SeenSettings
{
    /// <summary>A collector of OpenTelemetry, as http://collector.firm.example:4318 (OTLP over HTTP): traces, metrics and logs are sent there.
    /// Default none.</summary>
    public string? Otlp { get; init; }

    /// <summary>Whether <c>GET /metrics</c> shows metrics as Prometheus reads them, to an administrator or a key of theirs. Default false.</summary>
    public bool Page { get; init; }

    /// <summary>How often metrics are sent to <see cref="Otlp"/>, in seconds. Default 30, 1 to 3600.</summary>
    public double EverySeconds { get; init; } = 30;

    /// <summary>How long a service that was told to stop goes on serving, in seconds, while <c>/health/ready</c> says that it is going down:
    /// proxies hear of it before a call fails. Default 0, at most 2.</summary>
    public double GoingDownSeconds { get; init; }

    public bool IsAny => Otlp is not null || Page;

    public IEnumerable<string> Problems()
    {
        if (Otlp is not null && !(Uri.TryCreate(Otlp, UriKind.Absolute, out var uri) && uri.Scheme is "http" or "https"))
            yield return $"Nailcrow:Seen:Otlp is '{Otlp}'; accepted: an address such as http://collector.firm.example:4318.";
        if (EverySeconds is < 1 or > 3600)
            yield return $"Nailcrow:Seen:EverySeconds is {EverySeconds}; accepted: 1 to 3600.";
        if (GoingDownSeconds is < 0 or > 2)
            yield return $"Nailcrow:Seen:GoingDownSeconds is {GoingDownSeconds}; accepted: 0 to 2.";
    }
}
