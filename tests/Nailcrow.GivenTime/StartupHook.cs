using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.GivenTime;

[assembly: HostingStartup(typeof(TimeIsGiven))]

/// <summary>
/// Named in DOTNET_STARTUP_HOOKS, it is loaded into a service before that begins; what is loaded can be named in
/// ASPNETCORE_HOSTINGSTARTUPASSEMBLIES. So the service under test is the one a user starts, and holds nothing that could
/// set its clock.
/// </summary>
internal static class StartupHook
{
    // The runtime asks for this method; that it is loaded is all that is needed.
    public static void Initialize() { }
}

namespace Nailcrow.GivenTime
{
    /// <summary>Puts a clock into the service that a test can move on.</summary>
    public sealed class TimeIsGiven : IHostingStartup
    {
        /// <summary>The setting that names the socket at which the clock is moved; without it a life has the system's clock.</summary>
        public const string Setting = "test-clock";

        public void Configure(IWebHostBuilder builder) =>
            builder.ConfigureServices(
                (context, services) =>
                {
                    if (context.Configuration[Setting] is not { Length: > 0 } socket)
                        return;
                    var time = new MovedTime();
                    ClockDoor.Open(socket, time);
                    services.AddSingleton<TimeProvider>(time);
                }
            );
    }
}
