using SkiaSharp;

namespace Nailcrow.Documents;

/// <summary>A PDF that says what it is. It says no time but the one it is made of: the same content gives the same bytes.</summary>
internal static class PdfFile
{
    public static SKDocument Into(Stream into, string title, DateTimeOffset asOf) =>
        SKDocument.CreatePdf(
            into,
            new SKDocumentPdfMetadata
            {
                Title = title,
                Creator = "Nailcrow",
                Producer = "Nailcrow",
                Creation = asOf.UtcDateTime,
                Modified = asOf.UtcDateTime,
            }
        );
}
