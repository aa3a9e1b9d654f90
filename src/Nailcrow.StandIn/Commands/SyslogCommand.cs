using System.CommandLine;
using System.Net.Sockets;
using System.Text;

namespace Nailcrow.StandIn.Commands;

/// <summary>Machines that send syslog: one line, or the storm after a power cut.</summary>
internal static class SyslogCommand
{
    public static Command Say()
    {
        var line = new Argument<string>("LINE") { Description = "What to send, after the host: \"md: medium error, dk0, 3 times\"." };
        var (host, to, bsd) = (Host(), To(), new Option<bool>("--older") { Description = "In the older BSD form instead of RFC 5424." });
        var command = new Command("syslog", "Send one syslog line over UDP, as a machine would.") { line, host, to, bsd };
        command.SetAction(
            async (parsed, ct) =>
            {
                using var udp = new UdpClient();
                var now = DateTime.UtcNow;
                var text = parsed.GetValue(bsd)
                    ? $"<131>{now:MMM} {now.Day, 2} {now:HH:mm:ss} {parsed.GetValue(host)} storage: {parsed.GetValue(line)}"
                    : $"<131>1 {now:yyyy-MM-ddTHH:mm:ssZ} {parsed.GetValue(host)} storage - - - {parsed.GetValue(line)}";
                var (name, port) = Address(parsed.GetValue(to)!);
                await udp.SendAsync(Encoding.UTF8.GetBytes(text), name, port, ct);
                return 0;
            }
        );
        return command;
    }

    public static Command Storm()
    {
        var (to, senders, events) = (
            To(),
            new Option<int>("--senders") { Description = "How many machines.", DefaultValueFactory = _ => 500 },
            new Option<int>("--events") { Description = "How many lines in all.", DefaultValueFactory = _ => 5000 }
        );
        var names = new Option<string>("--named")
        {
            Description = "Host names, with # for the number.",
            DefaultValueFactory = _ => "storm-#",
        };
        var command = new Command("storm", "What comes in when a site loses power: many machines at once, each repeating itself, over TCP.")
        {
            to,
            senders,
            events,
            names,
        };
        command.SetAction(
            async (parsed, ct) =>
            {
                var (name, port) = Address(parsed.GetValue(to)!);
                var (machines, lines) = (parsed.GetValue(senders), parsed.GetValue(events));
                await Parallel.ForEachAsync(
                    Enumerable.Range(0, machines),
                    new ParallelOptions { MaxDegreeOfParallelism = 50, CancellationToken = ct },
                    async (machine, token) =>
                    {
                        using var tcp = new TcpClient();
                        await tcp.ConnectAsync(name, port, token);
                        await using var stream = tcp.GetStream();
                        var host = parsed.GetValue(names)!.Replace("#", $"{machine}", StringComparison.Ordinal);
                        for (var i = machine; i < lines; i += machines)
                        {
                            var text = Encoding.UTF8.GetBytes(
                                $"<130>1 {DateTime.UtcNow:yyyy-MM-ddTHH:mm:ss.fffZ} {host} storage - - - power lost, drive in bay "
                                    + $"{i / machines % 4 + 1} went offline"
                            );
                            await stream.WriteAsync(Encoding.ASCII.GetBytes($"{text.Length} "), token);
                            await stream.WriteAsync(text, token);
                        }
                    }
                );
                await parsed.InvocationConfiguration.Output.WriteLineAsync($"{lines} lines sent by {machines} machines.");
                return 0;
            }
        );
        return command;
    }

    private static Option<string> Host() =>
        new("--host") { Description = "The name the machine calls itself by.", DefaultValueFactory = _ => "brk12-0007" };

    private static Option<string> To() =>
        new("--to") { Description = "Where Nailcrow listens for syslog, as HOST:PORT.", DefaultValueFactory = _ => "127.0.0.1:7414" };

    private static (string Host, int Port) Address(string text) =>
        text.Split(':') is [var host, var port] && int.TryParse(port, out var number)
            ? (host, number)
            : throw new ArgumentException($"'{text}' is no address; write HOST:PORT.");
}
