using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Http.Resilience;
using Nailcrow.Appliances.Redfish;
using Polly;

namespace Nailcrow.Appliances;

public static class LinkRegistration
{
    public static IServiceCollection AddApplianceLinks(this IServiceCollection services, LinkSettings settings)
    {
        var allowed = new AllowedAddresses([.. settings.AllowedNetworks.Select(n => System.Net.IPNetwork.Parse(n))]);
        services.AddSingleton(settings).AddSingleton(allowed);
        services
            .AddHttpClient(RedfishEvents.StreamClient, client => client.Timeout = Timeout.InfiniteTimeSpan)
            .ConfigurePrimaryHttpMessageHandler(() => Handler(allowed));
        services
            .AddHttpClient<IMachineEvents, RedfishEvents>(client => client.MaxResponseContentBufferSize = settings.MostBytes)
            .ConfigurePrimaryHttpMessageHandler(() => Handler(allowed))
            .AddResilienceHandler("events", pipeline => pipeline.AddTimeout(settings.CallDeadline));
        services
            .AddHttpClient<IApplianceLink, RedfishLink>(client =>
            {
                client.MaxResponseContentBufferSize = settings.MostBytes;
                client.Timeout = settings.LookDeadline;
            })
            .ConfigurePrimaryHttpMessageHandler(() => Handler(allowed))
            .AddResilienceHandler("appliance", pipeline => pipeline.AddCircuitBreaker(Breaker()).AddTimeout(settings.CallDeadline))
            .SelectPipelineByAuthority();
        return services;
    }

    // Management processors come with certificates they signed themselves. Nothing secret is sent to them, and what
    // they answer is held against labels a person reads, so an unknown certificate is accepted. A redirect is not
    // followed: it could lead anywhere.
    private static SocketsHttpHandler Handler(AllowedAddresses allowed) =>
        new()
        {
            AllowAutoRedirect = false,
            ConnectCallback = allowed.ConnectAsync,
            UseProxy = false,
            SslOptions = { RemoteCertificateValidationCallback = (_, _, _, _) => true },
            MaxConnectionsPerServer = 4, // these processors are slow; more at once makes them slower
            PooledConnectionLifetime = TimeSpan.FromMinutes(5),
        };

    /// <summary>After half the calls of half a minute failed, a machine is left alone for a quarter of one.</summary>
    private static HttpCircuitBreakerStrategyOptions Breaker() =>
        new()
        {
            FailureRatio = 0.5,
            MinimumThroughput = 5,
            SamplingDuration = TimeSpan.FromSeconds(30),
            BreakDuration = TimeSpan.FromSeconds(15),
        };
}
