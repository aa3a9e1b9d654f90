using Nailcrow.Core.Appliances.Models;

namespace Nailcrow.Procedures.Sheets;

/// <summary>Made-up models to try a procedure with, where no real one is at hand.</summary>
public static class SampleModels
{
    private static readonly ApplianceModel Plain = new(
        "sample",
        "Some maker",
        "sample",
        2,
        6,
        BayOrder.AlongRows,
        Loading.Front,
        SwapPower.Hot,
        RebuildStart.ByHand,
        false,
        10,
        4,
        "Press the latch and pull the lever.",
        "Label up, connectors to the back.",
        200,
        [new("amber, steady", "drive has failed")],
        ["A beep each minute"],
        ["management screen", "console port"],
        []
    );

    /// <summary>One model for each way in which the procedure tells machines apart, at most so many.</summary>
    public static IReadOnlyList<ApplianceModel> For(Procedure procedure, int most = 64)
    {
        var asked = procedure
            .Steps.Select(s => s.When)
            .Append(procedure.AppliesTo)
            .SelectMany(c => c.Facts())
            .Append(ModelProperties.RebuildStarts)
            .ToHashSet();
        return
        [
            .. Varied(asked)
                .Where(m => procedure.AppliesTo.Holds(f => ModelProperties.Of(m, f)) != false)
                .DistinctBy(m => string.Join('|', asked.Select(f => ModelProperties.Of(m, f))))
                .Take(most),
        ];
    }

    /// <summary>All combinations of what is asked, of those properties that make a machine another kind of machine.</summary>
    private static IEnumerable<ApplianceModel> Varied(IReadOnlySet<string> asked)
    {
        IEnumerable<ApplianceModel> models = [Plain];
        models = Each(models, asked, "model.loading", Enum.GetValues<Loading>(), (m, v) => m with { Loading = v });
        models = Each(models, asked, ModelProperties.Swapped, Enum.GetValues<SwapPower>(), (m, v) => m with { Swap = v });
        models = Each(models, asked, "model.rebuild-runs", Enum.GetValues<RebuildRuns>(), (m, v) => m with { RebuildRuns = v });
        models = Each(
            models,
            asked,
            "model.bays",
            [(2, 6), (1, 2)],
            (m, v) => m with { Rows = v.Item1, Columns = v.Item1 == 1 ? v.Item2 : 6 }
        );
        models = Each(models, asked, "model.release", [false, true], (m, v) => m with { ReleaseBeforePull = v });
        models = Each(models, asked, "model.next-while-preparing", [false, true], (m, v) => m with { NextWhilePreparing = v });
        models = Each(models, asked, ModelProperties.RebuildStarts, Enum.GetValues<RebuildStart>(), (m, v) => m with { RebuildStart = v });
        models = Each(models, asked, "model.growth", [Growth.ByHand, Growth.Automatic, Growth.Never], (m, v) => m with { Growth = v });
        models = Each(models, asked, "model.bezel", Enum.GetValues<Bezel>(), (m, v) => m with { Bezel = v });
        models = Each(models, asked, "model.screws", [4, 0], (m, v) => m with { CarrierScrews = v });
        models = Each(models, asked, "model.locator", [Locator.Chassis, Locator.None], (m, v) => m with { Locator = v });
        return Each(
            models,
            asked,
            "model.slides-out",
            [true, false],
            (m, v) => m with { SlidesOut = v, CoverLimitSeconds = v ? 300 : null }
        );
    }

    private static IEnumerable<ApplianceModel> Each<T>(
        IEnumerable<ApplianceModel> models,
        IReadOnlySet<string> asked,
        string property,
        T[] values,
        Func<ApplianceModel, T, ApplianceModel> with
    ) => asked.Contains(property) ? models.SelectMany(m => values.Select(v => with(m, v))) : models;
}
