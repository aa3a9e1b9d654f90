using System.Text.RegularExpressions;
using Nailcrow.Running;

namespace Nailcrow.Bench;

/// <summary>What a browser has to fetch before the first page stands, gzipped as the service sends it.</summary>
internal static class ConsoleWeight
{
    public static async Task MeasureAsync()
    {
        await using var service = await RunningService.StartAsync(watchSeconds: 60);
        using var http = service.Http();
        http.DefaultRequestHeaders.Add("Accept-Encoding", "gzip");
        var index = await http.GetAsync("/");
        await using var page = new MemoryStream(await index.Content.ReadAsByteArrayAsync());
        var html = await new StreamReader(page).ReadToEndAsync();
        var first = Regex.Matches(html, "(?:src|href)=\"(/assets/[^\"]+\\.js)\"").Select(m => m.Groups[1].Value).Distinct().ToList();
        var bytes = 0L;
        foreach (var file in first)
            bytes += await SentAsync(http, file);
        Told.Plain("JavaScript of the first load", bytes / 1000.0, "kB gzip", "at most 200");
        var later = Directory
            .GetFiles(Path.Combine(Built.Root, "src", "Nailcrow.Service", "wwwroot", "assets"), "*.js")
            .Select(f => $"/assets/{Path.GetFileName(f)}")
            .Except(first);
        foreach (var file in later)
            Told.Plain($"later: {file[8..Math.Min(file.Length, 24)]}", await SentAsync(http, file) / 1000.0, "kB gzip", "lazily");
    }

    private static async Task<long> SentAsync(HttpClient http, string file)
    {
        using var answer = await http.GetAsync(file);
        var body = await answer.Content.ReadAsByteArrayAsync();
        if (answer.Content.Headers.ContentEncoding.Contains("gzip"))
            return body.Length;
        throw new InvalidDataException($"{file} was not sent gzipped.");
    }
}
