using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store.Tests;

/// <summary>A second service on the same database.</summary>
internal static class OtherNode
{
    public static ServiceProvider NodeOn(this IServiceCollection services, StoreInUse store) =>
        services.AddSingleton(TimeProvider.System).AddLogging().AddNailcrowStore(store.File, store.Server).BuildServiceProvider();

    public static TicketJournal Journal(this ServiceProvider node) => node.GetRequiredService<TicketJournal>();
}
