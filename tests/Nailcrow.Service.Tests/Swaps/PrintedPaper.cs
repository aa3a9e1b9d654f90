using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Nailcrow.Service.Tests.Swaps;

/// <summary>A PDF as somebody has it who printed it: its words, its sheets, and what a scanner reads on them. Nothing of it is read by our own code.</summary>
/// <param name="Width">Of its first sheet, in millimetres.</param>
internal sealed record PrintedPaper(string Words, int Sheets, int Width, int Height, IReadOnlyList<string> Scanned)
{
    public static async Task<PrintedPaper> OfAsync(Func<Stream, Task> fetch)
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-paper-").FullName;
        try
        {
            var pdf = Path.Combine(folder, "paper.pdf");
            await using (var file = File.Create(pdf))
                await fetch(file);
            var told = await RunAsync("pdfinfo", pdf);
            await RunAsync("pdftoppm", "-r", "200", "-png", pdf, Path.Combine(folder, "sheet"));
            var scanned = new List<string>();
            foreach (var sheet in Directory.EnumerateFiles(folder, "sheet*.png").Order())
                scanned.AddRange((await RunAsync("zbarimg", "--quiet", "--raw", sheet)).Split('\n', StringSplitOptions.RemoveEmptyEntries));
            return new(
                Regex.Replace(await RunAsync("pdftotext", "-layout", pdf, "-"), "\\s+", " "),
                int.Parse(Told(told, "Pages: +(\\d+)"), CultureInfo.InvariantCulture),
                Millimetres(Told(told, "Page size: +([\\d.]+) x")),
                Millimetres(Told(told, "Page size: +[\\d.]+ x ([\\d.]+)")),
                scanned
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static string Told(string told, string pattern) => Regex.Match(told, pattern).Groups[1].Value;

    private static int Millimetres(string points) => (int)Math.Round(double.Parse(points, CultureInfo.InvariantCulture) * 25.4 / 72);

    private static async Task<string> RunAsync(string program, params string[] arguments)
    {
        using var process =
            Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true })
            ?? throw new InvalidOperationException($"{program} did not start.");
        var said = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        return said;
    }
}
