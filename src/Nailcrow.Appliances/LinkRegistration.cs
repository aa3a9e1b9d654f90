using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Microsoft.Extensions.Http.Resilience;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Appliances.Redfish;
using Nailcrow.Appliances.Redfish.Events;
using Polly;

namespace Nailcrow.Appliances;

public static class LinkRegistration
{
    public static IServiceCollection AddApplianceLinks(this IServiceCollection services, LinkSettings settings)
    {
        var allowed = new AllowedAddresses([.. settings.AllowedNetworks.Select(n => System.Net.IPNetwork.Parse(n))]);
        services.AddSingleton(settings).AddSingleton(allowed).AddSingleton<MachineConnections>().AddSingleton<MachineSessions>();
        services.AddTransient<RedfishAsking>();
        services.TryAddSingleton<IMachineKeys, NoMachineKeys>();
        services
            .AddHttpClient(RedfishEvents.StreamClient, client => client.Timeout = Timeout.InfiniteTimeSpan)
            .ConfigurePrimaryHttpMessageHandler(services => new MachineCalls(services.GetRequiredService<MachineConnections>()));
        services
            .AddHttpClient<IMachineEvents, RedfishEvents>(client => client.MaxResponseContentBufferSize = settings.MostBytes)
            .ConfigurePrimaryHttpMessageHandler(services => new MachineCalls(services.GetRequiredService<MachineConnections>()))
            .AddResilienceHandler("events", pipeline => pipeline.AddTimeout(settings.CallDeadline));
        services
            .AddHttpClient<IApplianceLink, RedfishLink>(client =>
            {
                client.MaxResponseContentBufferSize = settings.MostBytes;
                client.Timeout = settings.LookDeadline;
            })
            .ConfigurePrimaryHttpMessageHandler(services => new MachineCalls(services.GetRequiredService<MachineConnections>()))
            .AddResilienceHandler("appliance", pipeline => pipeline.AddCircuitBreaker(Breaker()).AddTimeout(settings.CallDeadline))
            .SelectPipelineByAuthority();
        return services;
    }

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
