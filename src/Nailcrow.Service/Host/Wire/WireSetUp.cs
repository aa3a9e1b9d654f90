using System.Net;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.HttpOverrides;

namespace Nailcrow.Service.Host.Wire;

/// <summary>How calls come in: over TLS, through which proxies, for which names.</summary>
internal static class WireSetUp
{
    public static void AddWire(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder.Services.AddSingleton(settings).AddSingleton<OurAddress>();
        if (settings.Tls is { } files)
            builder.Services.AddSingleton(s => ActivatorUtilities.CreateInstance<TlsCertificate>(s, files));
        var connections = new ConnectionsOfOne([.. settings.ProxyNetworks()]);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.ConfigureEndpointDefaults(endpoint => endpoint.Use(connections.Before));
            if (settings.Tls is null)
                return;
            var shown = kestrel.ApplicationServices.GetRequiredService<TlsCertificate>();
            kestrel.ConfigureHttpsDefaults(https =>
            {
                https.ServerCertificateSelector = (_, _) => shown.Shown().TargetCertificate;
                https.OnAuthenticate = (_, tls) =>
                {
                    // With those that signed it: a client that knows the root alone has to be shown the way there.
                    tls.ServerCertificateContext = shown.Shown();
                    tls.ServerCertificateSelectionCallback = null;
                };
            });
        });
        builder.Services.Configure<HostFilteringOptions>(hosts => hosts.AllowedHosts = [.. settings.HostNames()]);
        builder.Services.Configure<ForwardedHeadersOptions>(forwarded =>
        {
            forwarded.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            forwarded.ForwardLimit = null; // as far as the proxies that were named reach
            forwarded.KnownProxies.Clear();
            forwarded.KnownIPNetworks.Clear();
            foreach (var network in settings.ProxyNetworks())
                forwarded.KnownIPNetworks.Add(network);
        });
    }

    public static void UseWire(this WebApplication app)
    {
        if (app.Services.GetRequiredService<ServiceSettings>().ProxyNetworks().Any())
            app.UseForwardedHeaders();
        app.UseHostFiltering();
        app.Use(
            (http, next) =>
            {
                // A year, as is asked of those who want to be remembered for it (RFC 6797; OWASP ASVS 4, 14.4.5).
                if (http.Request.IsHttps)
                    http.Response.Headers.StrictTransportSecurity = "max-age=31536000";
                return next(http);
            }
        );
    }

    /// <summary>What is wrong with where it is to listen; null where nothing is.</summary>
    /// <param name="urls">As they are configured, separated by semicolons.</param>
    /// <param name="endpoints">The server's own section of endpoints, which would go before them.</param>
    public static string? Problem(string urls, IConfigurationSection endpoints, ServiceSettings settings)
    {
        if (endpoints.Exists())
            return $"{endpoints.Path} is set; say where to listen with --urls, and the certificate with Nailcrow:Tls:Certificate and Nailcrow:Tls:Key.";
        foreach (var url in urls.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var address = BindingAddress.Parse(url);
            if (address.Scheme == "https" && settings.Tls is null)
                return $"{url} is to be listened at, and there is no certificate; Nailcrow:Tls:Certificate and Nailcrow:Tls:Key say where it lies, as PEM.";
            if (address.Scheme == "http" && !address.IsUnixPipe && !IsLoopback(address.Host) && !settings.PlainHttp)
                return $"{url} is to be listened at without TLS, where everybody on the way reads passwords. Give a certificate (Nailcrow:Tls:Certificate, "
                    + "Nailcrow:Tls:Key) and listen at https; or, where a proxy in front does that, say so with Nailcrow:PlainHttp=true.";
        }
        return null;
    }

    private static bool IsLoopback(string host) =>
        host.Equals("localhost", StringComparison.OrdinalIgnoreCase)
        || IPAddress.TryParse(host.Trim('[', ']'), out var ip) && IPAddress.IsLoopback(ip);
}
