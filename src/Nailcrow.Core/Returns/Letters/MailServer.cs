using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Letters;

/// <summary>Where mail is handed in, as a partner's address says it: smtp://user@mail.example:587/care@fenwright.example.</summary>
/// <param name="Tls">TLS from the first byte (RFC 8314); else it is begun with STARTTLS (RFC 3207) where the server can.</param>
/// <param name="User">Who signs in there, with the partner's secret as the password; null where nobody has to.</param>
/// <param name="From">The address that mails come from.</param>
public sealed record MailServer(string Host, int Port, bool Tls, string? User, string From)
{
    private const int Submission = 587; // RFC 6409
    private const int SubmissionOverTls = 465; // RFC 8314

    private const string Accepted = "write smtp://HOST:PORT/FROM or smtps://USER@HOST/FROM, FROM an address like care@firm.example.";

    public static Parsed<MailServer> Parse(string address) =>
        !Uri.TryCreate(address.Trim(), UriKind.Absolute, out var uri) || uri.Scheme is not ("smtp" or "smtps") || uri.Host.Length == 0
            ? No($"'{address.Trim()}' is no mail server")
        : uri.UserInfo.Contains(':', StringComparison.Ordinal) ? No("A password is given with --secret, and never in an address")
        : uri.Query.Length > 0 || uri.Fragment.Length > 0 ? No($"'{address.Trim()}' has more than a mail server needs")
        : Uri.UnescapeDataString(uri.AbsolutePath.TrimStart('/')) is var from && !Mailbox.IsOne(from)
            ? No($"'{from}' is no address that mails can come from")
        : new Parsed<MailServer>.Ok(
            new(
                uri.Host,
                uri.Port > 0 ? uri.Port
                    : uri.Scheme == "smtps" ? SubmissionOverTls
                    : Submission,
                uri.Scheme == "smtps",
                uri.UserInfo.Length > 0 ? Uri.UnescapeDataString(uri.UserInfo) : null,
                from
            )
        );

    private static Parsed<MailServer>.Refused No(string why) => new($"{why}; {Accepted}");
}
