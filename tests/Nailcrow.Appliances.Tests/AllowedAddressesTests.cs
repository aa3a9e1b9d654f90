using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;

namespace Nailcrow.Appliances.Tests;

/// <summary>A management address is typed by people and comes in files: it leads to machines, and nowhere else.</summary>
public sealed class AllowedAddressesTests
{
    private const int OurPort = 7420;

    private static AllowedAddresses Open()
    {
        var allowed = new AllowedAddresses([]);
        allowed.OwnPorts([OurPort]);
        return allowed;
    }

    [Theory]
    [InlineData("10.0.0.5")]
    [InlineData("192.168.7.9")]
    [InlineData("198.51.100.7")]
    [InlineData("2001:db8::7")]
    [InlineData("fd00::7")]
    public void A_machine_may_be_asked(string address) => Open().Problem(IPAddress.Parse(address), 443).ShouldBeNull();

    [Theory]
    [InlineData("169.254.169.254")]
    [InlineData("::ffff:169.254.169.254")]
    [InlineData("64:ff9b::a9fe:a9fe")]
    [InlineData("2002:a9fe:a9fe::1")]
    [InlineData("fe80::1")]
    [InlineData("fec0::1")]
    [InlineData("0.0.0.0")]
    [InlineData("0.1.2.3")]
    [InlineData("::")]
    [InlineData("224.0.0.1")]
    [InlineData("ff02::1")]
    [InlineData("255.255.255.255")]
    [InlineData("240.0.0.1")]
    [InlineData("198.18.0.1")]
    public void What_is_no_machines_address_is_not_asked_in_whatever_clothes(string address) =>
        Open().Problem(IPAddress.Parse(address), 443).ShouldEndWith("is no address that may be asked.");

    [Fact]
    public void A_network_that_is_shared_by_many_is_asked_only_where_somebody_says_that_machines_are_there()
    {
        Open().Problem(IPAddress.Parse("100.64.0.9"), 443).ShouldStartWith("100.64.0.9 is shared by many");
        new AllowedAddresses([IPNetwork.Parse("100.64.0.0/24")]).Problem(IPAddress.Parse("100.64.0.9"), 443).ShouldBeNull();
    }

    [Fact]
    public void Outside_the_networks_that_were_named_nothing_is_asked() =>
        new AllowedAddresses([IPNetwork.Parse("10.0.0.0/24")])
            .Problem(IPAddress.Parse("10.0.1.5"), 443)
            .ShouldBe("10.0.1.5 is in none of the networks that machines may be in (10.0.0.0/24).");

    [Fact]
    public void The_service_does_not_ask_itself_by_any_of_its_addresses()
    {
        var own = NetworkInterface.GetAllNetworkInterfaces().SelectMany(i => i.GetIPProperties().UnicastAddresses).Select(a => a.Address);

        foreach (var address in own.Append(IPAddress.Parse("127.8.9.10")).Where(a => !a.IsIPv6LinkLocal))
        {
            Open().Problem(address, OurPort).ShouldBe($"{address}:{OurPort} is Nailcrow itself.");
            Open().Problem(address, OurPort + 1).ShouldBeNull(); // a stand-in beside it
        }
    }

    [Fact]
    public async Task Where_one_address_of_a_name_is_closed_the_next_one_is_asked()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0); // IPv4 alone; localhost may be ::1 first
        listener.Start();
        using var http = new HttpClient(new SocketsHttpHandler { ConnectCallback = Open().ConnectAsync });
        var asking = http.GetAsync($"http://localhost:{((IPEndPoint)listener.LocalEndpoint).Port}/", TestContext.Current.CancellationToken);

        using var came = await listener.AcceptTcpClientAsync(TestContext.Current.CancellationToken);
        await came.GetStream().WriteAsync("HTTP/1.1 204 No Content\r\n\r\n"u8.ToArray(), TestContext.Current.CancellationToken);

        (await asking).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }
}
