using System.Text;

namespace Nailcrow.Console.Tests;

/// <summary>
/// What the browser's camera sees: a drive's label with its serial as Code 128 (ISO/IEC 15417, code set B), as an uncompressed film
/// of one picture.
/// </summary>
internal static class LabelBeforeCamera
{
    private const int Width = 640;
    private const int Height = 480;
    private const int ModuleWidth = 3;
    private const int StartB = 104;
    private const int Stop = 106;

    // Widths of bars and gaps of the symbols 0 to 106, each beginning with a bar.
    private static readonly string[] Symbols = (
        "212222 222122 222221 121223 121322 131222 122213 122312 132212 221213 221312 231212 112232 122132 122231 113222 123122 123221 "
        + "223211 221132 221231 213212 223112 312131 311222 321122 321221 312212 322112 322211 212123 212321 232121 111323 131123 131321 "
        + "112313 132113 132311 211313 231113 231311 112133 112331 132131 113123 113321 133121 313121 211331 231131 213113 213311 213131 "
        + "311123 311321 331121 312113 312311 332111 314111 221411 431111 111224 111422 121124 121421 141122 141221 112214 112412 122114 "
        + "122411 142112 142211 241211 221114 413111 241112 134111 111242 121142 121241 114212 124112 124211 411212 421112 421211 212141 "
        + "214121 412121 111143 111341 131141 114113 114311 411113 411311 113141 114131 311141 411131 211412 211214 211232 2331112"
    ).Split(' ');

    /// <summary>Writes the film (YUV4MPEG2, as Chromium's stand-in camera plays it over and over) and gives its path.</summary>
    public static string Film(string text)
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("nailcrow-camera-").FullName, "label.y4m");
        using var film = File.Create(path);
        film.Write(Encoding.ASCII.GetBytes($"YUV4MPEG2 W{Width} H{Height} F10:1 Ip A1:1 C420jpeg\nFRAME\n"));
        var line = Line(text);
        for (var y = 0; y < Height; y++)
            film.Write(y is > 140 and < 340 ? line : Blank(Width, 255));
        film.Write(Blank(Width * Height / 2, 128)); // no colour
        return path;
    }

    private static byte[] Line(string text)
    {
        var codes = text.Select(c => c - ' ').ToList();
        var check = (StartB + codes.Select((code, i) => code * (i + 1)).Sum()) % 103;
        var widths = string.Concat(new[] { StartB }.Concat(codes).Append(check).Append(Stop).Select(s => Symbols[s]));
        var line = Blank(Width, 255);
        var at = (Width - widths.Sum(w => w - '0') * ModuleWidth) / 2;
        for (var i = 0; i < widths.Length; i++)
        for (var end = at + (widths[i] - '0') * ModuleWidth; at < end; at++)
            line[at] = i % 2 == 0 ? (byte)0 : (byte)255;
        return line;
    }

    private static byte[] Blank(int length, byte value)
    {
        var blank = new byte[length];
        Array.Fill(blank, value);
        return blank;
    }
}
