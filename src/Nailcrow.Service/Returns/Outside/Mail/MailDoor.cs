using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Reports;
using Nailcrow.Store.Returns.Outside;

namespace Nailcrow.Service.Returns.Outside.Mail;

/// <summary>Hands one mail to the mail server. Whatever that does, this ends in time with a sentence.</summary>
internal sealed class MailDoor(Partners partners, OutsideSettings settings, OutsideAddresses addresses) : IDisposable
{
    // A mail server is asked by few at once, however many wait.
    private readonly SemaphoreSlim _few = new(2);

    /// <param name="id">The errand's id: a mail that was sent twice is one to whoever reads it by its Message-ID (RFC 5322).</param>
    public async Task<Heard<string>> SendAsync(
        Partner partner,
        Guid id,
        string to,
        string subject,
        string body,
        Printed? paper,
        CancellationToken ct
    )
    {
        if (!MailServer.Parse(partner.Address).Is(out var server, out var unusable))
            return new Heard<string>.Trouble($"{partner.Name}: {unusable}");
        if (!MailboxAddress.TryParse(to, out var mailbox))
            return new Heard<string>.No($"'{to}' is no address that a mail can be sent to");
        using var letter = Letter(server, id, mailbox, subject, body, paper);
        var patience = TimeSpan.FromSeconds(settings.AnswerWithinSeconds);
        // Not for longer than a mail is claimed: somebody else would take it up then.
        if (!await _few.WaitAsync(patience, ct))
            return new Heard<string>.Trouble($"{partner.Name} is busy with other mails.");
        try
        {
            using var within = CancellationTokenSource.CreateLinkedTokenSource(ct);
            within.CancelAfter(patience);
            return await HandAsync(partner, server, letter, within.Token);
        }
        catch (OperationCanceledException) when (!ct.IsCancellationRequested)
        {
            return new Heard<string>.Trouble($"{partner.Name} did not answer within {settings.AnswerWithinSeconds:0} s.");
        }
        finally
        {
            _few.Release();
        }
    }

    private async Task<Heard<string>> HandAsync(Partner partner, MailServer server, MimeMessage letter, CancellationToken ct)
    {
        using var smtp = new SmtpClient { Timeout = (int)(settings.AnswerWithinSeconds * 1_000) };
        try
        {
            await smtp.ConnectAsync(
                await addresses.Allowed.ConnectAsync(server.Host, server.Port, ct), // the client has it then, and closes it
                server.Host,
                server.Port,
                server.Tls ? SecureSocketOptions.SslOnConnect : SecureSocketOptions.StartTlsWhenAvailable,
                ct
            );
            if (server.User is { } user)
            {
                if (!smtp.IsSecure)
                    return new Heard<string>.Trouble($"{partner.Name} offers no TLS, and no password is sent without it.");
                if (await partners.SecretAsync(partner.Name, ct) is not { } password)
                    return new Heard<string>.Trouble(
                        $"The password for {partner.Name} was kept under keys that are gone; an administrator sets it anew."
                    );
                await smtp.AuthenticateAsync(user, password, ct);
            }
            var said = await smtp.SendAsync(letter, ct);
            await LeaveAsync(smtp, ct);
            return new Heard<string>.Answer(PartnerCalls.Shown(said));
        }
        // RFC 5321, 4.2.1: 5yz will be answered the same each time, 4yz may not.
        catch (SmtpCommandException e) when ((int)e.StatusCode >= 500)
        {
            return new Heard<string>.No(PartnerCalls.Shown(e.Message));
        }
        catch (SmtpCommandException e)
        {
            return new Heard<string>.Trouble($"{partner.Name} does not take it now: {PartnerCalls.Shown(e.Message)}");
        }
        catch (NotSupportedException e)
        {
            return new Heard<string>.No($"{partner.Name} cannot carry it: {FirstLine(e.Message)}"); // an address that is not ASCII
        }
        catch (MailKit.Security.AuthenticationException)
        {
            return new Heard<string>.Trouble($"{partner.Name} does not let {server.User} in with the password we have.");
        }
        catch (SslHandshakeException e)
        {
            return new Heard<string>.Trouble($"{partner.Name} shows no certificate that is trusted here: {FirstLine(e.Message)}");
        }
        catch (Exception e) when (e is IOException or System.Net.Sockets.SocketException or ProtocolException or InvalidOperationException)
        {
            return new Heard<string>.Trouble($"{partner.Name} is not reached at {server.Host}:{server.Port}: {FirstLine(e.Message)}");
        }
    }

    /// <summary>They have the mail: whatever comes of taking leave, it is not sent again.</summary>
    private static async Task LeaveAsync(SmtpClient smtp, CancellationToken ct)
    {
        try
        {
            await smtp.DisconnectAsync(quit: true, ct);
        }
        catch (Exception e) when (e is IOException or ProtocolException or OperationCanceledException or System.Net.Sockets.SocketException)
        {
            // The connection is closed with the client.
        }
    }

    private static string FirstLine(string message) => PartnerCalls.Shown(message.Split('\n')[0].Trim());

    private static MimeMessage Letter(MailServer server, Guid id, MailboxAddress to, string subject, string body, Printed? paper)
    {
        var letter = new MimeMessage
        {
            Subject = Visible.Text(subject),
            MessageId = $"{id:N}@{server.From[(server.From.IndexOf('@') + 1)..]}",
        };
        letter.From.Add(MailboxAddress.Parse(server.From));
        letter.To.Add(to);
        // Nobody's holiday answers to a machine (RFC 3834).
        letter.Headers.Add("Auto-Submitted", "auto-generated");
        var content = new BodyBuilder { TextBody = body };
        if (paper is not null)
            content.Attachments.Add(paper.Name, paper.Pdf, new ContentType("application", "pdf"));
        letter.Body = content.ToMessageBody();
        return letter;
    }

    public void Dispose() => _few.Dispose();
}
