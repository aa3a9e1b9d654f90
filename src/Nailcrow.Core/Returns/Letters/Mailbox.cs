using System.Net.Mail;

namespace Nailcrow.Core.Returns.Letters;

/// <summary>An address that one mail goes to.</summary>
public static class Mailbox
{
    /// <summary>One mailbox and nothing beside it: no second one, no name, no line's end.</summary>
    public static bool IsOne(string text) =>
        MailAddress.TryCreate(text.Trim(), out var address)
        && address.Address == text.Trim()
        && address.Host.Contains('.', StringComparison.Ordinal)
        && !text.Trim().Any(c => char.IsControl(c) || char.IsWhiteSpace(c) || c is ',' or ';' or '<' or '>' or '"' or '(' or ')');

    /// <summary>Why a text is none; what would be.</summary>
    public static string WhyNot(string text) => $"'{text.Trim()}' is no address of a mailbox; write one like name@place.example.";
}
