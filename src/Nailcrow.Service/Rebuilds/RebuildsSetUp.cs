using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Service.Returns;
using Nailcrow.Service.Swaps;
using Nailcrow.Service.Tickets;
using Quartz;

namespace Nailcrow.Service.Rebuilds;

internal static class RebuildsSetUp
{
    public static void AddRebuilds(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder
            .Services.AddSingleton<LiveFeed>()
            .AddSingleton<TicketViews>()
            .AddSingleton<KnownTickets>()
            .AddSingleton<KnownAgreements>()
            .AddSingleton<KnownPlaces>()
            .AddSingleton<Appliances.BaySightings>()
            .AddSingleton<SheetMaker>()
            .AddSingleton<RebuildFollower>()
            .AddSingleton<Returns.Fitting>()
            .AddSingleton<StoresRoom>()
            .AddSingleton<Tickets.Planning.Desks>()
            .AddSingleton<CalendarKeys>();
        builder.Services.AddQuartz(quartz =>
            quartz.ScheduleJob<WatchRound>(trigger =>
                trigger
                    .WithIdentity("watch")
                    .StartAt(DateTimeOffset.UtcNow.AddSeconds(1))
                    .WithSimpleSchedule(schedule =>
                        schedule.WithInterval(TimeSpan.FromSeconds(Math.Clamp(settings.WatchEverySeconds, 1, 3600))).RepeatForever()
                    )
            )
        );
        builder.Services.AddHostedService<Rounds>();
    }
}
