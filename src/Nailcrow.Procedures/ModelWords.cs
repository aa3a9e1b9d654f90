using Nailcrow.Core.Appliances.Models;
using Nailcrow.Procedures.Proof.Declared;

namespace Nailcrow.Procedures;

/// <summary>
/// The second look at what is written of a model: its words fill blanks of proved steps, most of which declare that they move nothing,
/// and no proof of a procedure has seen them.
/// </summary>
public static class ModelWords
{
    /// <returns>Each text that would have somebody move or empty a drive, as a sentence that says what would be taken.</returns>
    public static IEnumerable<string> Problems(ApplianceModel model) =>
        Told(model, "lamps", model.Lamps.Select(l => $"{l.Pattern}: {l.Meaning}"), Enum.GetValues<Doing>())
            .Concat(Told(model, "ways in", model.WaysIn, Enum.GetValues<Doing>()))
            .Concat(Told(model, "what is normal during a rebuild", model.NormalDuringRebuild, Enum.GetValues<Doing>()))
            // How one gets at a drive stands in the very steps that move it; none of them empties one.
            .Concat(Told(model, "latch, carrier and seating", [model.Latch, model.Carrier, model.Seating ?? ""], [Doing.Empties]));

    private static IEnumerable<string> Told(ApplianceModel model, string place, IEnumerable<string> texts, Doing[] not) =>
        texts.SelectMany(text =>
            SecondLook
                .In(new Said(place, text, IsInstruction: false))
                .Where(heard => !heard.SaysNotTo && not.Contains(heard.Doing))
                .DistinctBy(heard => heard.Word)
                .Select(heard =>
                    $"Model '{model.Id}' says '{heard.Word}' in its {place} ('{text}'); that stands in steps which declare nothing of the "
                    + "kind. Say what is so, and leave what to do to the procedures."
                )
        );
}
