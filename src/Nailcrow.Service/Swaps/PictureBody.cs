using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Service.Swaps;

/// <summary>A picture as the body of a call: what it begins with says what it is, whatever was said of it.</summary>
internal static class PictureBody
{
    // The console sends 1600 pixels a side at most, some 400 kB; what is larger comes from elsewhere and is too much for a phone's line.
    private const int MostBytes = 4 * 1024 * 1024;

    public static async Task<Parsed<Picture>> ReadAsync(HttpRequest request, CancellationToken ct)
    {
        if (request.ContentLength > MostBytes)
            return TooLarge(request.ContentLength.Value);
        using var memory = new MemoryStream();
        await request.Body.CopyToAsync(memory, ct);
        var content = memory.ToArray();
        return content.Length > MostBytes ? TooLarge(content.Length)
            : MediaTypeOf(content) is { } mediaType ? new Parsed<Picture>.Ok(new(mediaType, content))
            : new Parsed<Picture>.Refused("That is no picture that is taken here; accepted: JPEG and PNG.");
    }

    /// <summary>JPEG: ITU-T T.81; PNG: ISO/IEC 15948.</summary>
    private static string? MediaTypeOf(ReadOnlySpan<byte> content) =>
        content.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]) ? "image/jpeg"
        : content.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]) ? "image/png"
        : null;

    private static Parsed<Picture> TooLarge(long bytes) =>
        new Parsed<Picture>.Refused($"The picture has {bytes:N0} bytes; at most {MostBytes:N0} are taken. Send a smaller one.");
}
