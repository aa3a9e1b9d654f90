namespace Nailcrow.Core.Appliances.Models;

/// <summary>One enclosure as one stands before it: drawers, in each the rows, in each the labels; "" where there is no bay.</summary>
/// <param name="Enclosure">Null for the main chassis, else the name its bays carry before the slash.</param>
public sealed record ChassisDrawing(
    string? Enclosure,
    string Model,
    Loading Loading,
    IReadOnlyList<IReadOnlyList<IReadOnlyList<string>>> Drawers
)
{
    public static ChassisDrawing Of(ApplianceModel model, string? enclosure = null)
    {
        var perDrawer = model.Rows / Math.Max(1, model.Drawers);
        return new(
            enclosure,
            $"{model.Maker} {model.Name}",
            model.Loading,
            [.. Enumerable.Range(0, Math.Max(1, model.Drawers)).Select(d => Rows(model, enclosure, d * perDrawer, perDrawer))]
        );
    }

    private static IReadOnlyList<IReadOnlyList<string>> Rows(ApplianceModel model, string? enclosure, int from, int count) =>
        [
            .. Enumerable
                .Range(from, count)
                .Select(r =>
                    (IReadOnlyList<string>)[.. Enumerable.Range(0, model.Columns).Select(c => InEnclosure(model.LabelAt(r, c), enclosure))]
                ),
        ];

    /// <summary>"7" in the main chassis, "E1/7" in an expansion.</summary>
    private static string InEnclosure(string? label, string? enclosure) =>
        label is null ? ""
        : enclosure is null ? label
        : $"{enclosure}/{label}";

    public IEnumerable<string> Labels() => Drawers.SelectMany(d => d).SelectMany(r => r).Where(l => l.Length > 0);
}
