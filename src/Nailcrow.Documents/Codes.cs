using QRCoder;
using SkiaSharp;
using ZXing;
using ZXing.OneD;

namespace Nailcrow.Documents;

/// <summary>Signs that a scanner reads.</summary>
internal static class Codes
{
    // ISO/IEC 15417: ten modules of white on either side.
    private const int Quiet = 10;

    // 0.33 mm: read by any hand scanner and by a phone, printed by any office printer.
    private const float WidestModule = 0.94f;

    /// <summary>Bars of Code 128 (ISO/IEC 15417), as wide as they are at most let be. Nothing is drawn of a text that has no bars.</summary>
    /// <returns>How wide they are with their quiet zones; 0 where the text has other signs than ASCII.</returns>
    public static float Bars(SKCanvas canvas, string text, float x, float y, float width, float height)
    {
        if (text.Length is 0 or > 80 || text.Any(c => c is < ' ' or > '~'))
            return 0;
        var bars = new Code128Writer().encode(
            text,
            BarcodeFormat.CODE_128,
            1,
            1,
            new Dictionary<EncodeHintType, object> { [EncodeHintType.MARGIN] = 0 }
        );
        var module = Math.Min(WidestModule, width / (bars.Width + 2 * Quiet));
        using var ink = new SKPaint { Color = SKColors.Black, IsAntialias = false };
        for (var at = 0; at < bars.Width; at++)
            if (bars[at, 0])
            {
                var from = at;
                while (at + 1 < bars.Width && bars[at + 1, 0])
                    at++;
                canvas.DrawRect(x + (Quiet + from) * module, y, (at - from + 1) * module, height, ink);
            }
        return (bars.Width + 2 * Quiet) * module;
    }

    /// <summary>A QR code (ISO/IEC 18004) of this side.</summary>
    public static void Qr(SKCanvas canvas, string text, float x, float y, float side)
    {
        using var data = new QRCodeGenerator().CreateQrCode(text, QRCodeGenerator.ECCLevel.M);
        using var ink = new SKPaint { Color = SKColors.Black };
        var module = side / data.ModuleMatrix.Count;
        for (var row = 0; row < data.ModuleMatrix.Count; row++)
        for (var column = 0; column < data.ModuleMatrix.Count; column++)
            if (data.ModuleMatrix[row][column])
                canvas.DrawRect(x + column * module, y + row * module, module + 0.1f, module + 0.1f, ink);
    }
}
