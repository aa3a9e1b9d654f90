using Nailcrow.Appliances;
using Nailcrow.Service.Host;
using Nailcrow.Service.Returns.Outside.Mail;
using Nailcrow.Store.Returns.Outside;
using Quartz;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>Where partners may be asked: anywhere but at the service itself and in link-local networks.</summary>
internal sealed record OutsideAddresses(AllowedAddresses Allowed);

internal static class OutsideSetUp
{
    public static void AddOutside(this WebApplicationBuilder builder)
    {
        var settings = SettingsRead.Of<OutsideSettings>(builder.Configuration, "Nailcrow:Outside", outside => outside.Problems());
        var allowed = new AllowedAddresses([]);
        builder
            .Services.AddSingleton(settings)
            .AddSingleton(new OutsideAddresses(allowed))
            .AddSingleton(s => new PartnerCalls(
                Client(settings, allowed),
                s.GetRequiredService<Partners>(),
                s.GetRequiredService<TimeProvider>()
            ))
            .AddSingleton<MailDoor>()
            .AddSingleton<Reports.PaperPress>()
            .AddSingleton<LetterSender>()
            .AddSingleton<ErrandRunner>()
            .AddSingleton<ParcelNews>()
            .AddSingleton<OutboxRound>()
            .AddHostedService(services => services.GetRequiredService<OutboxRound>());
        builder.Services.AddQuartz(quartz =>
            quartz.ScheduleJob<ReminderRound>(trigger =>
                trigger
                    .WithIdentity("reminders")
                    .StartAt(DateTimeOffset.UtcNow.AddSeconds(Math.Min(settings.RemindEverySeconds, FirstReminding)))
                    .WithSimpleSchedule(schedule =>
                        schedule.WithInterval(TimeSpan.FromSeconds(settings.RemindEverySeconds)).RepeatForever()
                    )
            )
        );
    }

    // Nobody waits for it, and who starts a service asks other things first.
    private const double FirstReminding = 60;

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
