using System.Buffers;
using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography;
using MimeKit;
using SmtpServer;
using SmtpServer.ComponentModel;
using SmtpServer.Mail;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Nailcrow.StandIn.Partners;

/// <summary>
/// A simulated mail server: takes every mail over SMTP and delivers none of them, and hands may read what it took. It knows nobody
/// whose address begins with "nobody@".
/// </summary>
internal sealed class MailStandIn(PartnerDoor door, int port) : MessageStore, IMailboxFilter
{
    private const int MostKept = 1_000;
    private static readonly TimeSpan SlowAnswer = TimeSpan.FromSeconds(5);

    private readonly ConcurrentQueue<Taken> _taken = new();

    private sealed record Attached(string Name, long Bytes, string Sha256);

    private sealed record Taken(string Id, string From, string To, string Subject, string Text, IReadOnlyList<Attached> Papers);

    public void Map(WebApplication app) => door.MapHands(app, () => _taken);

    /// <summary>Takes mail until it is told to stop.</summary>
    public async Task TakeAsync(CancellationToken ct)
    {
        var at = new IPEndPoint(IPAddress.Loopback, port == 0 ? FreePort() : port);
        var options = new SmtpServerOptionsBuilder().ServerName("stand-in").Endpoint(e => e.Endpoint(at)).Build();
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add((IMessageStore)this);
        services.Add((IMailboxFilter)this);
        var taking = new SmtpServer.SmtpServer(options, services).StartAsync(ct);
        Console.WriteLine($"Stand-in mail is handed in at smtp://{at}/");
        await taking;
    }

    public override async Task<SmtpResponse> SaveAsync(
        ISessionContext context,
        IMessageTransaction transaction,
        ReadOnlySequence<byte> buffer,
        CancellationToken cancellationToken
    )
    {
        door.Counts();
        switch (door.Manner)
        {
            case PartnerManner.Slow:
                await Task.Delay(SlowAnswer, cancellationToken);
                break;
            case PartnerManner.Hangs:
                await Task.Delay(Timeout.Infinite, cancellationToken);
                break;
            case PartnerManner.Down:
                return new SmtpResponse(SmtpReplyCode.Aborted, "We are down for the night.");
            case PartnerManner.Refuses:
                return new SmtpResponse(SmtpReplyCode.TransactionFailed, "We do not take this.");
            default:
                break;
        }
        using var stream = new MemoryStream(buffer.ToArray());
        using var letter = await MimeMessage.LoadAsync(stream, cancellationToken);
        _taken.Enqueue(
            new(
                letter.MessageId ?? "",
                letter.From.ToString(),
                string.Join(", ", transaction.To.Select(t => $"{t.User}@{t.Host}")),
                letter.Subject ?? "",
                letter.TextBody ?? "",
                [.. letter.Attachments.OfType<MimePart>().Select(Of)]
            )
        );
        while (_taken.Count > MostKept && _taken.TryDequeue(out _)) { }
        return SmtpResponse.Ok;
    }

    public Task<bool> CanAcceptFromAsync(ISessionContext context, IMailbox from, int size, CancellationToken cancellationToken) =>
        Task.FromResult(true);

    public Task<bool> CanDeliverToAsync(ISessionContext context, IMailbox to, IMailbox from, CancellationToken cancellationToken) =>
        Task.FromResult(!to.User.Equals("nobody", StringComparison.OrdinalIgnoreCase));

    private static Attached Of(MimePart part)
    {
        using var content = new MemoryStream();
        part.Content?.DecodeTo(content);
        return new(part.FileName ?? "", content.Length, Convert.ToHexStringLower(SHA256.HashData(content.ToArray())));
    }

    private static int FreePort()
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }
}
