using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Http.Resilience;
using Nailcrow.Appliances.Redfish;
using Polly;

namespace Nailcrow.Appliances;

public static class LinkRegistration
{
    public static IServiceCollection AddApplianceLinks(this IServiceCollection services, LinkSettings settings)
    {
        services.AddSingleton(settings);
        services
            .AddHttpClient<IApplianceLink, RedfishLink>(client =>
            {
                client.MaxResponseContentBufferSize = settings.MostBytes;
                client.Timeout = settings.LookDeadline;
            })
            .ConfigurePrimaryHttpMessageHandler(Handler)
            .AddResilienceHandler("appliance", pipeline => pipeline.AddCircuitBreaker(Breaker()).AddTimeout(settings.CallDeadline))
            .SelectPipelineByAuthority();
        return services;
    }

    // Management processors come with certificates they signed themselves. Nothing secret is sent to them, and what
    // they answer is held against labels a person reads, so an unknown certificate is accepted. A redirect is not
    // followed: it could lead anywhere.
    private static SocketsHttpHandler Handler() =>
        new()
        {
            AllowAutoRedirect = false,
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
