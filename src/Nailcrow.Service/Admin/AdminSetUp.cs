using Nailcrow.Service.Host;
using Quartz;

namespace Nailcrow.Service.Admin;

internal static class AdminSetUp
{
    public static void AddAdmin(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder.Services.AddHostedService<ListKeeper>();
        if (settings.SealEveryHours > 0)
            builder.Services.AddQuartz(quartz =>
                quartz.ScheduleJob<SealRound>(trigger =>
                    trigger
                        .WithIdentity("seal")
                        .StartAt(DateTimeOffset.UtcNow.AddHours(settings.SealEveryHours))
                        .WithSimpleSchedule(schedule => schedule.WithInterval(TimeSpan.FromHours(settings.SealEveryHours)).RepeatForever())
                )
            );
    }
}
