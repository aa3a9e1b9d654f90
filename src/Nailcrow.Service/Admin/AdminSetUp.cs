using Nailcrow.Service.Host;
using Quartz;

namespace Nailcrow.Service.Admin;

internal static class AdminSetUp
{
    public static void AddAdmin(this WebApplicationBuilder builder, ServiceSettings settings)
    {
        builder.Services.AddHostedService<ListKeeper>();
        builder.Services.AddQuartz(quartz =>
            quartz.ScheduleJob<PictureRound>(trigger =>
                trigger
                    .WithIdentity("pictures")
                    .StartAt(DateTimeOffset.UtcNow.AddSeconds(Math.Min(settings.PicturesEverySeconds, FirstPictures)))
                    .WithSimpleSchedule(schedule =>
                        schedule.WithInterval(TimeSpan.FromSeconds(settings.PicturesEverySeconds)).RepeatForever()
                    )
            )
        );
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

    // Nobody waits for it, and who starts a service asks other things first.
    private const double FirstPictures = 120;
}
