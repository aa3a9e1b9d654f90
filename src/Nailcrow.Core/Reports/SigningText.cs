using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace Nailcrow.Core.Reports;

/// <summary>What a customer signs: the service report as plain text, and its number.</summary>
/// <param name="Sha256">Of the text as UTF-8, in hex.</param>
public sealed record SigningText(string Text, string Sha256)
{
    public static SigningText Of(ServiceReport report)
    {
        var text = new StringBuilder();
        foreach (var line in report.Heading.Prepend(report.Title))
            text.Append(line).Append('\n');
        foreach (var part in report.Parts)
        {
            text.Append('\n').Append(part.Name).Append('\n');
            foreach (var line in part.Lines)
                text.Append(Told(line)).Append('\n');
        }
        var whole = text.ToString();
        return new(whole, Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(whole))));
    }

    private static string Told(ReportLine line) =>
        (line.At is { } at ? at.UtcDateTime.ToString("yyyy-MM-dd HH:mm 'UTC'  ", CultureInfo.InvariantCulture) : "")
        + line.Says
        + (line.By is { } by ? $" ({by})" : "");
}
