using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>The chapter that a run stands in.</summary>
/// <param name="Nth">From 1.</param>
public sealed record ChapterPlace(string Chapter, int Nth, int Count)
{
    public static ChapterPlace Of(RunSheet sheet, RunStep step)
    {
        var chapters = sheet.Steps.Select(s => s.Chapter).Distinct().ToList();
        return new(step.Chapter, chapters.IndexOf(step.Chapter) + 1, chapters.Count);
    }
}
