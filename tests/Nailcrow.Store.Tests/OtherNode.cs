using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Tests;

/// <summary>A second service on the same database.</summary>
internal static class OtherNode
{
    /// <param name="time">A clock of its own.</param>
    /// <param name="log">Where what it says is kept.</param>
    public static ServiceProvider NodeOn(
        this IServiceCollection services,
        StoreInUse store,
        TimeProvider? time = null,
        ILoggerProvider? log = null
    ) =>
        services
            .AddSingleton(time ?? TimeProvider.System)
            .AddLogging(logging =>
            {
                if (log is not null)
                    logging.AddProvider(log);
            })
            .AddNailcrowStore(store.File, store.Server)
            .BuildServiceProvider();

    public static TicketJournal Journal(this ServiceProvider node) => node.GetRequiredService<TicketJournal>();
}
