using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Intake.Events;
using Nailcrow.Service.Intake.Syslog;
using Quartz;

namespace Nailcrow.Service.Intake;

internal static class IntakeSetUp
{
    public static void AddIntake(this WebApplicationBuilder builder, ServiceSettings all)
    {
        var settings = SettingsRead.Of<IntakeSettings>(
            builder.Configuration,
            "Nailcrow:Intake",
            intake => intake.Problems(all.Tls is not null)
        );
        builder
            .Services.AddSingleton(settings)
            .AddSingleton<IntakeSorter>()
            .AddSingleton<OneAtATime>()
            .AddSingleton<PushKeys>()
            .AddSingleton<MachineStreams>();
        builder.Services.AddSingleton<Reception>().AddHostedService(s => s.GetRequiredService<Reception>());
        builder.Services.AddSingleton<Joiner>().AddHostedService(s => s.GetRequiredService<Joiner>());
        if (settings.SyslogPort is not null)
            builder.Services.AddHostedService<SyslogListener>();
        builder.Services.AddQuartz(quartz =>
            quartz.ScheduleJob<SubscriptionRound>(trigger =>
                trigger
                    .WithIdentity("subscriptions")
                    .StartAt(DateTimeOffset.UtcNow.AddSeconds(Math.Clamp(settings.SubscribeEverySeconds, 1, 3600)))
                    .WithSimpleSchedule(schedule =>
                        schedule.WithInterval(TimeSpan.FromSeconds(Math.Clamp(settings.SubscribeEverySeconds, 1, 3600))).RepeatForever()
                    )
            )
        );
        if (settings.KeepMonths > 0)
            builder.Services.AddQuartz(quartz =>
                quartz.ScheduleJob<TrimRound>(trigger =>
                    trigger
                        .WithIdentity("trim")
                        .StartAt(DateTimeOffset.UtcNow.AddSeconds(Math.Min(settings.TrimEverySeconds, FirstTrim)))
                        .WithSimpleSchedule(schedule =>
                            schedule.WithInterval(TimeSpan.FromSeconds(settings.TrimEverySeconds)).RepeatForever()
                        )
                )
            );
    }

    // Nobody waits for it, and who starts a service asks other things first.
    private const double FirstTrim = 180;
}
