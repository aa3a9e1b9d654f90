using System.Globalization;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Documents.Returns;

/// <summary>What is to be taken off its shelf, in the order of a walk along the shelves: a box to tick, the serial as bars to scan.</summary>
public static class PickingPaper
{
    private const float BarsWidth = 180;
    private const float BarsHeight = 24;
    private const float Indent = 20;

    /// <summary>Writes a PDF of A4 pages.</summary>
    /// <param name="depot">The one it is of; null for all.</param>
    public static void Write(IReadOnlyList<PickLine> pick, string? depot, DateTimeOffset made, Stream into)
    {
        using var fonts = new Type();
        var title = depot is null ? "Picking list" : $"Picking list, {depot}";
        using var paper = new Paper(
            into,
            title,
            made,
            (p, page) =>
                p.Text($"{title}   page {page}   as of {made.UtcDateTime:yyyy-MM-dd HH:mm} UTC", fonts.Small, Paper.Margin, Paper.Inner)
        );
        paper.Text(title, fonts.Title, Paper.Margin, Paper.Inner);
        if (pick.Count == 0)
            paper.Text("Nothing is set aside that still lies on a shelf.", fonts.Text, Paper.Margin, Paper.Inner);
        var byShelf = pick.OrderBy(p => p.Part.Holder.Place(), StringComparer.Ordinal)
            .ThenBy(p => p.Part.Holder.Shelf, StringComparer.Create(CultureInfo.InvariantCulture, CompareOptions.NumericOrdering))
            .GroupBy(p => $"{p.Part.Holder}");
        foreach (var shelf in byShelf)
        {
            Reports.CustomersPaper.Chapter(paper, fonts, shelf.Key);
            foreach (var line in shelf.OrderBy(l => l.NeededBy ?? DateTimeOffset.MaxValue))
                One(paper, fonts, line);
        }
    }

    private static void One(Paper paper, Type fonts, PickLine line)
    {
        var width = Paper.Inner - BarsWidth - Indent - 12;
        var says = string.Join(
            "\n",
            $"{line.Part.Model}{(line.Part.Bytes > 0 ? $", {ByteSize.Both(line.Part.Bytes)}" : "")}",
            $"For {TicketNumber.Text(line.Ticket)}: {line.Asset}, {line.Site}. {(line.Engineer is { } who ? $"{who} takes it" : "Nobody has the ticket yet")}"
                + $"{(line.NeededBy is { } by ? $"; needed by {by.UtcDateTime:yyyy-MM-dd HH:mm} UTC" : "")}."
        );
        paper.Need(fonts.Say.Size * 1.3f + Paper.HeightOf(says, fonts.Text, width) + 12);
        paper.Y += 6;
        var top = paper.Y;
        paper.Box(Paper.Margin, top + 3, 11);
        Codes.Bars(paper.Canvas, line.Part.Serial, Paper.Margin + Indent + width + 12, top + 4, BarsWidth, BarsHeight);
        paper.Text(line.Part.Serial, fonts.Say, Paper.Margin + Indent, width);
        paper.Text(says, fonts.Text, Paper.Margin + Indent, width);
        paper.Y = Math.Max(paper.Y, top + 4 + BarsHeight) + 4;
        paper.Line(Paper.Margin, paper.Y, Paper.Inner, 0.3f);
    }
}
