using Microsoft.Extensions.Options;
using Nailcrow.Appliances;
using Nailcrow.Store.Returns.Outside;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>Where partners may be asked: anywhere but at the service itself and in link-local networks.</summary>
internal sealed record OutsideAddresses(AllowedAddresses Allowed);

internal static class OutsideSetUp
{
    public static void AddOutside(this WebApplicationBuilder builder)
    {
        var settings = builder.Configuration.GetSection("Nailcrow:Outside").Get<OutsideSettings>() ?? new();
        if (settings.Problems().ToList() is { Count: > 0 } problems)
            throw new OptionsValidationException("Nailcrow:Outside", typeof(OutsideSettings), problems);
        var allowed = new AllowedAddresses([]);
        builder
            .Services.AddSingleton(settings)
            .AddSingleton(new OutsideAddresses(allowed))
            .AddSingleton(s => new PartnerCalls(
                Client(settings, allowed),
                s.GetRequiredService<Partners>(),
                s.GetRequiredService<TimeProvider>()
            ))
            .AddSingleton<ErrandRunner>()
            .AddSingleton<ParcelNews>()
            .AddSingleton<OutboxRound>()
            .AddHostedService(services => services.GetRequiredService<OutboxRound>());
    }

    private static HttpClient Client(OutsideSettings settings, AllowedAddresses allowed) =>
        new(
            new SocketsHttpHandler
            {
                AllowAutoRedirect = false, // it could lead anywhere, with our signature
                ConnectCallback = allowed.ConnectAsync,
                UseProxy = false,
                PooledConnectionLifetime = TimeSpan.FromMinutes(5),
            }
        )
        {
            Timeout = TimeSpan.FromSeconds(settings.AnswerWithinSeconds),
            MaxResponseContentBufferSize = PartnerCalls.MostBytes,
        };
}
