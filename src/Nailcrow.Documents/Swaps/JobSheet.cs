using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using SkiaSharp;

namespace Nailcrow.Documents.Swaps;

/// <summary>What stands above a job sheet.</summary>
/// <param name="Link">Where its answers are entered afterwards; the QR code leads there.</param>
public sealed record JobSheetHead(long Ticket, string Asset, string Site, string Location, string Model, Uri Link, DateTimeOffset Made);

/// <summary>
/// A run sheet on paper: the plain path in its order, then what is only done if it does not go so; boxes to tick, blanks to fill,
/// branches in words, and a QR code back to the ticket.
/// </summary>
public static class JobSheet
{
    private const float Indent = 30;
    private const float Clock = 56;

    /// <summary>Writes a PDF of A4 pages. The same sheet and head give the same bytes.</summary>
    public static void Write(RunSheet sheet, JobSheetHead head, Stream into)
    {
        using var fonts = new Type();
        using var paper = new Paper(
            into,
            $"{TicketNumber.Text(head.Ticket)} {sheet.Title}",
            head.Made,
            (p, page) => Foot(p, fonts, sheet, head, page)
        );
        var places = new Places(sheet);
        Head(paper, fonts, sheet, head, places);
        var chapter = "";
        foreach (var step in places.Plain)
        {
            if (step.Chapter != chapter)
                Chapter(paper, fonts, chapter = step.Chapter);
            Plain(paper, fonts, step, places);
        }
        ToCompare(paper, fonts, sheet, places);
        if (places.Otherwise.Count == 0)
            return;
        Chapter(paper, fonts, "Only if a box above leads here");
        paper.Y += 2;
        paper.InColumns(2);
        foreach (var step in places.Otherwise)
            Otherwise(paper, fonts, step, places);
    }

    /// <summary>What has to be read stands behind the plain path, so that it is read from the drive and not from the paper.</summary>
    private static void ToCompare(Paper paper, Type fonts, RunSheet sheet, Places places)
    {
        var scans = sheet.Steps.Where(s => s is { Kind: StepKind.Scan, See: not null }).OrderBy(s => places[s.Id]).ToList();
        if (scans.Count == 0)
            return;
        Chapter(paper, fonts, "To compare with, once it was read");
        paper.Text(
            string.Join("     ", scans.Select(s => $"{places[s.Id]}: {s.See}")),
            fonts.Text,
            Paper.Margin + Indent,
            Paper.Inner - Indent
        );
    }

    private static void Head(Paper paper, Type fonts, RunSheet sheet, JobSheetHead head, Places places)
    {
        const float code = 92;
        Codes.Qr(paper.Canvas, head.Link.ToString(), Paper.Width - Paper.Margin - code, Paper.Margin, code);
        var width = Paper.Inner - code - 16;
        paper.Text($"{TicketNumber.Text(head.Ticket)}  {sheet.Title}", fonts.Title, Paper.Margin, width);
        paper.Y += 4;
        foreach (
            var line in new[] { $"{head.Asset}, {head.Model}", $"{head.Site}: {head.Location}", $"Array {sheet.Array}" }.Concat(
                (sheet.Drives ?? []).Select(d => $"Bay {d.Bay}: one drive out, the replacement in")
            )
        )
            paper.Text(line, fonts.Text, Paper.Margin, width);
        paper.Y = Math.Max(paper.Y + 6, Paper.Margin + code + 8);
        paper.Text(
            "Tick the box before a step when it is done and as it should be, write the time, and go on with the next. Another box leads "
                + "to the step whose number stands behind it. If it is not as the sheet says, touch nothing more and "
                + (places.Stuck is { } stuck ? $"go to {places[stuck]}." : "call."),
            fonts.Small,
            Paper.Margin,
            Paper.Inner
        );
        paper.Y += 8;
        paper.Text(
            "Engineer ______________________    Date ____________    Lead's telephone ______________________",
            fonts.Text,
            Paper.Margin,
            Paper.Inner
        );
        paper.Y += 4;
    }

    private static void Chapter(Paper paper, Type fonts, string name)
    {
        paper.Need(48);
        paper.Y += 4;
        paper.Text(name, fonts.Chapter, Paper.Margin, Paper.Inner);
        paper.Y += 3;
        paper.Line(Paper.Margin, paper.Y, Paper.Inner);
        paper.Y += 1;
    }

    /// <summary>Box, number, sentence, and a blank for the time; what leads elsewhere beneath.</summary>
    private static void Plain(Paper paper, Type fonts, RunStep step, Places places)
    {
        var width = Paper.Inner - Indent - 14 - Clock;
        // Whoever comes to it on the plain path has met its condition.
        var (told, boxes) = (Told(step with { When = null }, places), Boxes(step, places).ToList());
        paper.Need(HeightOf(step.Say, told, boxes, fonts.Say, fonts.Fine, width) + 4);
        paper.Y += 4;
        var top = paper.Y;
        paper.Box(Paper.Margin, top + 3.5f, 9);
        paper.Text($"{places[step.Id]}", fonts.Say, Paper.Margin + 14, Indent);
        paper.Y = top;
        paper.Text("at ___:___", fonts.Fine, Paper.Width - Paper.Margin - 46, 46);
        paper.Y = top;
        paper.Text(step.Say, fonts.Say, Paper.Margin + 14 + Indent, width);
        if (told.Length > 0)
            paper.Text(told, fonts.Fine, Paper.Margin + 14 + Indent, width);
        paper.Boxes(boxes, fonts.Fine, Paper.Margin + 14 + Indent, width);
    }

    /// <summary>The same, smaller: nobody comes here on a good day.</summary>
    private static void Otherwise(Paper paper, Type fonts, RunStep step, Places places)
    {
        const float indent = 24;
        var width = paper.ColumnWidth - indent;
        var told = Told(step, places);
        List<string> boxes =
        [
            .. OnwardBoxes(step, places),
            .. Boxes(step, places).Select(b => b.Replace(Line, ShortLine, StringComparison.Ordinal)),
        ];
        paper.Need(HeightOf(step.Say, told, boxes, fonts.SmallSay, fonts.Tiny, width) + 5);
        paper.Y += 5;
        var top = paper.Y;
        paper.Text($"{places[step.Id]}", fonts.SmallSay, paper.Left, indent);
        paper.Y = top;
        paper.Text(step.Say, fonts.SmallSay, paper.Left + indent, width);
        if (told.Length > 0)
            paper.Text(told, fonts.Tiny, paper.Left + indent, width);
        paper.Boxes(boxes, fonts.Tiny, paper.Left + indent, width);
    }

    private static float HeightOf(string say, string told, List<string> boxes, SKFont bold, SKFont small, float width) =>
        Paper.HeightOf(say, bold, width)
        + (told.Length > 0 ? Paper.HeightOf(told, small, width) : 0)
        + Paper.HeightOfBoxes(boxes, small, width);

    /// <summary>What one sees, and what else there is to know, in one run of text.</summary>
    private static string Told(RunStep step, Places places) => string.Join("  ", Lines(step, places));

    private static IEnumerable<string> Lines(RunStep step, Places places)
    {
        if (step.When is { } when)
            yield return $"Only where {places.Said(when)}.";
        if (step is { See: { } see, Kind: not StepKind.Scan })
            yield return $"Then you see: {see}";
        if (step.Hear is { } hear)
            yield return $"And hear: {hear}";
        if (step.NormalNow is [_, ..] normal)
            yield return $"Normal now: {string.Join("; ", normal)}.";
        if (step.IfNot is { } ifNot)
            yield return $"If not: {ifNot}";
        if (step.With is { } with)
            yield return $"Say: {string.Join(", ", with)}.";
        if (step.Decides is { } role)
            yield return $"A {Words.Of(role)} decides this; write down who.";
        if (step is { Kind: StepKind.Limit, Seconds: { } seconds })
            yield return $"Within {seconds} seconds from now.";
    }

    /// <summary>The good answer of a step off the plain path, where it leads on.</summary>
    private static IEnumerable<string> OnwardBoxes(RunStep step, Places places) =>
        step.Answers.Where(a => a.Answer == PlainPath.Answer(step) && Blank(step, a.Answer) is null).Select(a => Box(step, a, places));

    /// <summary>What leads elsewhere than on, and what is to be written down.</summary>
    private static IEnumerable<string> Boxes(RunStep step, Places places)
    {
        var good = PlainPath.Answer(step);
        if (step.Leading(good) is { } on && Blank(step, good) is { } blank)
            yield return $"{blank}{Leads(step, on.Next, places)} {Line}";
        foreach (var answer in step.Answers.Where(a => a.Answer != good && a.Answer != RunStep.NotSo))
            yield return Box(step, answer, places);
        if (step.Leading(RunStep.NotSo) is { Next: var next } not && next != places.Stuck && step.Kind != StepKind.Scan)
            yield return $"not so{Leads(step, not.Next, places)}";
    }

    private const string Line = "__________________________";
    private const string ShortLine = "______________";

    private static string? Blank(RunStep step, string answer) =>
        step.Erases ? "done to bay and serial"
        : step.Kind == StepKind.Read ? step.Unit ?? "written down"
        : step.Kind == StepKind.Call && answer == RunStep.Done ? "go-ahead, by"
        : step.Kind == StepKind.Scan ? "the same serial, read"
        : null;

    private static string Box(RunStep step, StepAnswer answer, Places places) =>
        answer.Answer switch
        {
            RunStep.Done when step.Kind == StepKind.Gate => $"so it is{Leads(step, answer.Next, places)}",
            "different" => $"another serial{Leads(step, answer.Next, places)}, read {Line}",
            _ => $"{answer.Label.ToLowerInvariant()}{Leads(step, answer.Next, places)}",
        };

    private static string Leads(RunStep step, string? next, Places places) =>
        next switch
        {
            null => " → the end",
            StepAnswer.Back => " → back to the step you came from",
            StepAnswer.HandOver => " → hand over; the sheet ends here",
            _ => places[next] == places[step.Id] + 1 ? "" : $" → go to {places[next]}",
        };

    private static void Foot(Paper paper, Type fonts, RunSheet sheet, JobSheetHead head, int page) =>
        paper.Text(
            $"{TicketNumber.Text(head.Ticket)}   page {page}   {sheet.Procedure} {sheet.Version}   sheet "
                + $"{sheet.Id}   made {head.Made.UtcDateTime:yyyy-MM-dd HH:mm} UTC",
            fonts.Small,
            Paper.Margin,
            Paper.Inner
        );
}
