using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Fitting;

[JsonConverter(typeof(KebabEnum<Fit>))]
public enum Fit
{
    Fits,
    FitsWithWarnings,
    DoesNotFit,
}

/// <summary>What a replacement has to be, from the machine and the drive it replaces.</summary>
/// <param name="LeastBytes">What keeps the usable capacity that the array has; null where nothing tells it.</param>
/// <param name="OldModel">The drive it replaces, where its model is known: speed and age are held against it.</param>
/// <param name="Known">What is said of drive models in this machine: that they work, or why not.</param>
/// <param name="Weighed">What parts that fit alike are told apart by; null where only the fit is asked.</param>
public sealed record Place(
    ApplianceModel Machine,
    long? LeastBytes,
    DriveModel? OldModel,
    int? OldHours,
    IReadOnlyList<Qualified> Known,
    Weighing? Weighed = null
);

/// <summary>Whether a part may go into a bay, with every reason.</summary>
/// <param name="Blocks">Why it does not fit.</param>
/// <param name="Warns">What a person may overrule, with name and reason.</param>
/// <param name="Notes">Where it is, whether it comes in time, how long it lasts: what a person weighs, and nobody has to overrule.</param>
/// <param name="NeverWorked">Its model is known not to work in this machine; one of the warnings says why.</param>
public sealed record PartFit(
    StockPart Part,
    DriveModel? Model,
    Fit Fit,
    IReadOnlyList<string> Blocks,
    IReadOnlyList<string> Warns,
    IReadOnlyList<string> Notes,
    bool NeverWorked = false
)
{
    // Two years of running: such a drive has used up a third of what array drives are built for.
    private const int ManyHours = 17_532;

    private const long TB = 1_000_000_000_000;

    /// <summary>
    /// Of the warnings those that a person has to overrule in writing. Of a model that is on no list, whoever types it answers for its
    /// form, interface and sectors by that; whether it is large enough, wiped and not worn is held against it all the same.
    /// </summary>
    public IReadOnlyList<string> ToOverrule => Model is null ? [.. Warns.Where(w => w != Unlisted(Part))] : Warns;

    public static PartFit Of(StockPart part, DriveModel? model, Place place)
    {
        if (part.Bytes == 0 && model is { Bytes: var sold }) // as its model is sold, where nobody has read its label
            part = part with { Bytes = sold };
        var blocks = TooSmall(part, place)
            .Concat(model is null ? [] : Blocking(model, place.Machine))
            .Concat(NotWiped(part) is { } unwiped ? [unwiped] : [])
            .ToList();
        var said = Said(model?.Id ?? part.Model, place);
        var warns = KnownBad(model?.Id ?? part.Model, said, place)
            .Concat(model is null ? [Unlisted(part)] : Warning(model, said, place))
            .Concat(Worn(part, place))
            .Concat(part.Bytes == 0 ? ["How large it is is not on record; read its label."] : [])
            .ToList();
        return new(
            part,
            model,
            blocks.Count > 0 ? Fit.DoesNotFit
                : warns.Count > 0 ? Fit.FitsWithWarnings
                : Fit.Fits,
            blocks,
            warns,
            blocks.Count > 0 ? [] : [.. (place.Weighed ?? Weighing.Nothing).Notes(part)],
            said?.NotBecause is not null
        );
    }

    private static string Unlisted(StockPart part) =>
        $"Nothing is known of the drive model '{part.Model}': form, interface and sectors are yours to check.";

    /// <summary>Whether drives of a model go into a machine's bays at all, whatever their size.</summary>
    public static bool GoesInto(DriveModel model, ApplianceModel machine) => !Blocking(model, machine).Any();

    /// <summary>
    /// The best first: what fits before what warns; what comes in time; the least more than needed, in whole TB; the nearest; what
    /// is under warranty for long; the new before the used and of those the least; and of equal ones what has lain longest.
    /// </summary>
    public static IReadOnlyList<PartFit> Ranked(IEnumerable<PartFit> fits, Weighing weighed) =>
        [
            .. fits.OrderBy(f => f.Fit)
                .ThenBy(f => f.NeverWorked) // whatever else speaks against another
                .ThenBy(f => f.Warns.Count)
                .ThenBy(f => weighed.IsLate(f.Part))
                .ThenBy(f => f.Part.Bytes / TB)
                .ThenBy(f => weighed.BandOf(f.Part))
                .ThenBy(f => weighed.HasLittleWarranty(f.Part))
                .ThenBy(f => f.Part.Hours ?? 0)
                .ThenBy(f => f.Part.Since ?? DateTimeOffset.MaxValue)
                .ThenBy(f => f.Part.Bytes)
                .ThenBy(f => f.Part.Serial, StringComparer.Ordinal),
        ];

    private static IEnumerable<string> TooSmall(StockPart part, Place place) =>
        place.LeastBytes is { } least && part.Bytes > 0 && ByteSize.Labelled(part.Bytes) < least
            ? [$"It has {part.Bytes:N0} bytes; {least:N0} are needed for the array to hold what it holds now."]
            : [];

    private static IEnumerable<string> Blocking(DriveModel model, ApplianceModel machine)
    {
        if (model.FormFactor != machine.FormFactor)
            yield return $"It is {model.FormFactor}; the carrier takes {machine.FormFactor}.";
        if (machine.Interfaces is { } interfaces && !interfaces.Contains(model.Interface))
            yield return $"Its interface is {model.Interface}; the bays take {string.Join(" or ", interfaces)}.";
        if (machine.SectorFormats is { } formats && !formats.Contains(model.SectorFormat))
            yield return $"Its sectors are {model.SectorFormat}; the arrays take {string.Join(" or ", formats)}.";
        if (machine.Media is { } media && !media.Contains(model.Media))
            yield return $"It is {model.Media}; the arrays take {string.Join(" or ", media)}.";
    }

    /// <summary>Why a part goes into no machine at all as it is: another one's data may be on it. Null where nothing tells of any.</summary>
    public static string? NotWiped(StockPart part) =>
        part is { UsedIn: { } machine, Wiped: false }
            ? $"It comes out of {machine} and no wipe is on record: left-over array data can confuse or take over this machine. "
                + "Wipe it and record that."
            : null;

    /// <summary>
    /// What is said of a drive model in this machine, by whatever name: first by its own, and where several other names may mean it,
    /// first that it does not work.
    /// </summary>
    private static Qualified? Said(string model, Place place) =>
        place
            .Known.Where(k => DriveModel.IsCalled(model, k.DriveModel) || DriveModel.IsCalled(k.DriveModel, model))
            .OrderBy(k => k.DriveModel != model)
            .ThenBy(k => k.NotBecause is null)
            .FirstOrDefault();

    private static IEnumerable<string> KnownBad(string model, Qualified? said, Place place) =>
        said?.NotBecause is { } because
            ? [$"{model} is known not to work in {place.Machine.Maker} {place.Machine.Name}: {because.TrimEnd('.')}."]
            : [];

    private static IEnumerable<string> Warning(DriveModel model, Qualified? said, Place place)
    {
        if (said is null && place.Known.Any(k => k.NotBecause is null))
            yield return $"{model.Id} is not on the maker's list for {place.Machine.Maker} {place.Machine.Name}.";
        if (model.Shingled)
            yield return "Its tracks overlap (shingled): a rebuild onto it can take many times as long.";
        if (model.Duty != "array")
            yield return $"It was made for {model.Duty} duty, not for arrays.";
        if (place.OldModel is { Rpm: { } old } && model.Rpm is { } rpm && rpm < old)
            yield return $"It turns at {rpm}; the drive it replaces at {old}. The array is as slow as its slowest member.";
        if (place.OldModel is { } was && was.Media != model.Media)
            yield return $"It is {model.Media}; the drive it replaces is {was.Media}.";
        if (place.OldModel is { } before && before.SectorFormat != model.SectorFormat)
            yield return $"Its sectors are {model.SectorFormat}; the others' are {before.SectorFormat}.";
    }

    private static IEnumerable<string> Worn(StockPart part, Place place) =>
        part.Hours is { } hours && hours > ManyHours && hours > (place.OldHours ?? 0) / 2 ? [$"It has run {hours:N0} hours already."] : [];
}
