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
        /// <summary>The variable that names the socket at which the clock is moved.</summary>
        public const string Variable = "NAILCROW_TEST_CLOCK";

        public void Configure(IWebHostBuilder builder)
        {
            if (Environment.GetEnvironmentVariable(Variable) is not { Length: > 0 } socket)
                return;
            var time = new MovedTime();
            ClockDoor.Open(socket, time);
            builder.ConfigureServices(services => services.AddSingleton<TimeProvider>(time));
        }
    }
}
