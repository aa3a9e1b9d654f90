namespace Nailcrow.Core.Procedures;

/// <summary>Something that tells a machine or a bay from all others.</summary>
/// <param name="Source">Where it comes from: two marks of one source are one mark, since what deceives one deceives the other.</param>
public sealed record KnownMark(string Name, string Source);

/// <summary>The marks there are. A list that is closed, so that nobody makes two of one by giving it two names.</summary>
public static class Marks
{
    private const string CountedTogether = "counted together";

    public static readonly IReadOnlyList<KnownMark> OfBay =
    [
        new("software", Slots),
        new("locator light", Slots),
        new("bay lamp", "the machine's own fault lamp"),
        new("label", "the serial on the drive's label"),
        new("count", "the position counted by eye"),
        new("plug", "the cable and its plug"),
        new(CountedTogether, "the position counted aloud with a lead who listens"),
        new("activity", "what its lamp does while the array is made to work"),
        new("looks", "its make, size and style of label among its neighbours'"),
        new("temperature", "how warm it is among its neighbours"),
        new("tape", "what somebody stuck there for this visit"),
    ];

    public static readonly IReadOnlyList<KnownMark> OfChassis =
    [
        new("locator light", "the light the software switched on"),
        new("own serial", "the serial on the chassis' sticker"),
        new("asset tag", "the customer's sticker"),
        new("front display", Itself),
        new("host name", Itself),
        new("rack place", "the place in the rack, counted by eye"),
    ];

    // The software lights a bay by the same table of slots that its names come from.
    private const string Slots = "what the software believes of its slots";
    private const string Itself = "what the machine calls itself";

    /// <summary>The same mark in any case and spacing; as it was written where it is none of ours (a sheet from before there was a list).</summary>
    public static string Named(string mark) =>
        string.Join(' ', mark.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)).ToLowerInvariant();

    /// <summary>A lead counts along, and is asked anew each time: such a mark is never used up by a pull that it led astray.</summary>
    public static bool IsWithALead(string mark) => Named(mark) == CountedTogether;

    /// <summary>Where a mark comes from; of one that is not on the list, the mark itself.</summary>
    public static string SourceOf(Records records, string mark) =>
        Of(records).FirstOrDefault(m => m.Name == Named(mark))?.Source ?? Named(mark);

    public static IReadOnlyList<KnownMark> Of(Records records) => records == Records.ChassisMark ? OfChassis : OfBay;
}
