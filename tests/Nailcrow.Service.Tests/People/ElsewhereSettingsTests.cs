using Nailcrow.Client;
using Nailcrow.Running;
using static Nailcrow.Service.Tests.People.FirmWithProvider;

namespace Nailcrow.Service.Tests.People;

/// <summary>A provider of sign-ins that is not set, away, or set as it cannot be meant.</summary>
public sealed class ElsewhereSettingsTests
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Where_none_is_set_there_is_none_to_come_in_by()
    {
        await using var service = await RunningService.StartPeopledAsync();
        var admin = await service.SignInAsync("admin");

        (await admin.SignInWaysAsync(Ct)).Elsewhere.ShouldBeNull();
        (await ProblemAsync(admin.AskDeviceAsync(Ct))).ShouldBe(
            (404, "No provider of sign-ins is set here; Nailcrow:Elsewhere names one at the start.")
        );
        (await ProblemAsync(admin.JoinElsewhereAsync(RunningService.Password, Ct))).Status.ShouldBe(404);
        using var http = service.Http();
        (await PageAsync(http)).Status.ShouldBe(404);
    }

    [Fact]
    public async Task A_provider_that_is_away_keeps_nobody_from_coming_in_by_their_password()
    {
        await using var service = await RunningService.StartPeopledAsync(
            further: ["--Nailcrow:Elsewhere:Issuer", "http://127.0.0.1:9/", "--Nailcrow:Elsewhere:ClientId", "nailcrow"]
        );
        var admin = await service.SignInAsync("admin");
        using var browser = service.Http();

        (await admin.SignInWaysAsync(Ct)).Elsewhere.ShouldNotBeNull().Name.ShouldBe("127.0.0.1");
        (await PageAsync(browser)).ShouldBe(
            (502, "127.0.0.1 cannot be reached from here. Try again, or sign in with your name and password.")
        );
        (await ProblemAsync(admin.AskDeviceAsync(Ct))).ShouldBe(
            (502, "127.0.0.1 cannot be reached from here, or does not answer as agreed. Try again, or sign in with your name and password.")
        );
    }

    [Fact]
    public async Task What_cannot_be_meant_by_its_settings_is_said_at_the_start_all_of_it()
    {
        var start = await Should.ThrowAsync<InvalidOperationException>(() =>
            RunningService.StartAsync(
                further:
                [
                    "--Nailcrow:Elsewhere:Issuer",
                    "http://sign-in.fenwright.example",
                    "--Nailcrow:Elsewhere:SecretFile",
                    "/nowhere/at/all",
                    "--Nailcrow:Elsewhere:Roles:tide-crew",
                    "chef",
                ]
            )
        );

        foreach (
            var said in new[]
            {
                "Nailcrow:Elsewhere:Issuer is 'http://sign-in.fenwright.example'; write one like https://sign-in.firm.example.",
                "Nailcrow:Elsewhere:ClientId is not set",
                "Nailcrow:Elsewhere:SecretFile is '/nowhere/at/all', which is no file that can be read:",
                "Nailcrow:Elsewhere:Roles:tide-crew:",
            }
        )
            start.Message.ShouldContain(said);
    }
}
