using QRCoder;

namespace Nailcrow.Documents;

/// <summary>A QR code (ISO/IEC 18004) to be drawn elsewhere: on a page, in a terminal.</summary>
public static class QrRows
{
    /// <returns>A row each, 1 for dark and 0 for light, with four modules of light around.</returns>
    public static IReadOnlyList<string> Of(string text)
    {
        using var data = new QRCodeGenerator().CreateQrCode(text, QRCodeGenerator.ECCLevel.M);
        return [.. data.ModuleMatrix.Select(row => string.Concat(row.Cast<bool>().Select(dark => dark ? '1' : '0')))];
    }
}
