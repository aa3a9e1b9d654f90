using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using QRCoder;
using SkiaSharp;

namespace Nailcrow.Documents.Swaps;

/// <summary>What stands above a job sheet.</summary>
/// <param name="Link">Where its answers are entered afterwards; the QR code leads there.</param>
public sealed record JobSheetHead(long Ticket, string Asset, string Site, string Location, string Model, Uri Link, DateTimeOffset Made);

/// <summary>A run sheet on paper: boxes to tick, blanks to fill, branches in words, and a QR code back to the ticket.</summary>
public static class JobSheet
{
    private const float Indent = 34;

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
        Head(paper, fonts, sheet, head);
        var numbers = sheet.Steps.Select((s, i) => (s.Id, i + 1)).ToDictionary(s => s.Id, s => s.Item2);
        var chapter = "";
        foreach (var step in sheet.Steps)
        {
            if (step.Chapter != chapter)
                Chapter(paper, fonts, chapter = step.Chapter);
            Step(paper, fonts, step, numbers);
        }
        ToCompare(paper, fonts, sheet, numbers);
    }

    /// <summary>What has to be read stands at the foot, so that it is read from the drive and not from the paper.</summary>
    private static void ToCompare(Paper paper, Type fonts, RunSheet sheet, IReadOnlyDictionary<string, int> numbers)
    {
        var scans = sheet.Steps.Where(s => s is { Kind: StepKind.Scan, See: not null }).ToList();
        if (scans.Count == 0)
            return;
        Chapter(paper, fonts, "To compare with, once it was read");
        paper.Y += 6;
        foreach (var scan in scans)
            paper.Text($"Step {numbers[scan.Id]}: {scan.See}", fonts.Text, Paper.Margin + Indent, Paper.Inner - Indent);
    }

    private static void Head(Paper paper, Type fonts, RunSheet sheet, JobSheetHead head)
    {
        const float code = 92;
        Qr(paper.Canvas, head.Link.ToString(), Paper.Width - Paper.Margin - code, Paper.Margin, code);
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
            "Tick one box a step and write the time. The number after a box says which step comes next; without "
                + "one it is the next on the paper. If it is not as the sheet says, touch nothing more and call.",
            fonts.Small,
            Paper.Margin,
            Paper.Inner
        );
        paper.Y += 16;
        paper.Text(
            "Engineer ______________________    Date ____________    Lead's telephone ______________________",
            fonts.Text,
            Paper.Margin,
            Paper.Inner
        );
        paper.Y += 10;
    }

    private static void Chapter(Paper paper, Type fonts, string name)
    {
        paper.Need(80);
        paper.Y += 8;
        paper.Text(name, fonts.Chapter, Paper.Margin, Paper.Inner);
        paper.Y += 3;
        paper.Line(Paper.Margin, paper.Y, Paper.Inner);
    }

    private static void Step(Paper paper, Type fonts, RunStep step, IReadOnlyDictionary<string, int> numbers)
    {
        var told = Told(step).ToList();
        var answers = Answers(step, numbers).ToList();
        var width = Paper.Inner - Indent - 70;
        paper.Need(
            Paper.HeightOf(step.Say, fonts.Say, width) + told.Sum(t => Paper.HeightOf(t, fonts.Small, width)) + answers.Count * 19 + 22
        );
        paper.Y += 7;
        var top = paper.Y;
        paper.Text($"{numbers[step.Id]}", fonts.Say, Paper.Margin, Indent);
        paper.Y = top;
        paper.Text("at ___:___", fonts.Small, Paper.Width - Paper.Margin - 52, 52);
        paper.Y = top;
        paper.Text(step.Say, fonts.Say, Paper.Margin + Indent, width);
        foreach (var line in told)
            paper.Text(line, fonts.Small, Paper.Margin + Indent, width);
        foreach (var (answer, blank) in answers)
            Answer(paper, fonts, answer, blank);
    }

    private static void Answer(Paper paper, Type fonts, string answer, bool blank)
    {
        paper.Y += 5;
        paper.Box(Paper.Margin + Indent, paper.Y + 1, 10);
        paper.Text(answer, fonts.Text, Paper.Margin + Indent + 18, Paper.Inner - Indent - 18);
        if (blank)
            paper.Line(
                Paper.Margin + Indent + 22 + fonts.Text.MeasureText(answer),
                paper.Y + 2,
                Paper.Inner - Indent - 30 - fonts.Text.MeasureText(answer)
            );
    }

    private static IEnumerable<string> Told(RunStep step)
    {
        if (step.When is { } when)
            yield return $"Only where {when}.";
        if (step is { See: { } see, Kind: not StepKind.Scan })
            yield return $"Then you see: {see}";
        if (step.Hear is { } hear)
            yield return $"And hear: {hear}";
        if (step.NormalNow is [_, ..] normal)
            yield return $"Normal now: {string.Join("; ", normal)}";
        if (step.IfNot is { } ifNot)
            yield return $"If not: {ifNot}";
        if (step.With is { } with)
            yield return $"Say: {string.Join(", ", with)}";
        if (step.Decides is { } role)
            yield return $"A {Words.Of(role)} decides this; write down who.";
        if (step is { Kind: StepKind.Limit, Seconds: { } seconds })
            yield return $"Within {seconds} seconds from now.";
    }

    /// <summary>Each way on, in words, and whether something is to be written beside it.</summary>
    private static IEnumerable<(string Answer, bool Blank)> Answers(RunStep step, IReadOnlyDictionary<string, int> numbers) =>
        step.Answers.Select(a =>
            (a.Answer, a.Next) switch
            {
                (RunStep.Done, var next) when step.Erases => ($"done to bay and serial{Leads(step, next, numbers)}:", true),
                (RunStep.Done, var next) when step.Kind == StepKind.Read => (
                    $"{step.Unit ?? "written down"}{Leads(step, next, numbers)}:",
                    true
                ),
                (RunStep.Done, var next) when step.Kind is StepKind.Gate => ($"so it is{Leads(step, next, numbers)}", false),
                (RunStep.Done, var next) when step.Kind is StepKind.Call => ($"go-ahead, by{Leads(step, next, numbers)}:", true),
                ("exact", var next) => ($"the same serial{Leads(step, next, numbers)}, read:", true),
                ("different", var next) => ($"another serial{Leads(step, next, numbers)}, read:", true),
                (_, var next) => ($"{a.Label.ToLowerInvariant()}{Leads(step, next, numbers)}", false),
            }
        );

    private static string Leads(RunStep step, string? next, IReadOnlyDictionary<string, int> numbers) =>
        next switch
        {
            null => " → the end",
            StepAnswer.Back => " → back to the step you came from",
            StepAnswer.HandOver => " → hand over; the sheet ends here",
            _ => numbers[next] == numbers[step.Id] + 1 ? "" : $" → go to {numbers[next]}",
        };

    private static void Foot(Paper paper, Type fonts, RunSheet sheet, JobSheetHead head, int page) =>
        paper.Text(
            $"{TicketNumber.Text(head.Ticket)}   page {page}   {sheet.Procedure} {sheet.Version}   sheet "
                + $"{sheet.Id}   made {head.Made.UtcDateTime:yyyy-MM-dd HH:mm} UTC",
            fonts.Small,
            Paper.Margin,
            Paper.Inner
        );

    private static void Qr(SKCanvas canvas, string text, float x, float y, float side)
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
