using Nailcrow.Core.People.SigningIn;

namespace Nailcrow.Core.Tests.SigningIn;

public sealed class DeviceTests
{
    [Theory]
    [InlineData("nailcrow/0.1.0 (cold-aisle-3)", "the command on cold-aisle-3")]
    [InlineData("nailcrow/0.1.0", "the command")]
    [InlineData("Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X)", "a browser on an iPhone")]
    [InlineData("Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36", "a browser on Android")]
    [InlineData("Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36", "a browser on Linux")]
    [InlineData("Mozilla/5.0", "a browser")]
    [InlineData("curl/8.1", "curl/8.1")]
    [InlineData("", "a program that does not say which")]
    [InlineData(null, "a program that does not say which")]
    [InlineData("\u001b[2Jevil", "␛[2Jevil")]
    public void A_device_is_told_so_that_its_owner_knows_it_again(string? says, string told) => Device.Told(says).ShouldBe(told);

    [Fact]
    public void What_a_stranger_writes_there_is_cut() => Device.Told(new string('q', 5_000)).Length.ShouldBeLessThan(100);
}
