using System.Collections.Immutable;
using System.Globalization;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Returns.Carrying;

/// <summary>A box that a carrier was asked to fetch: what is in it, where it goes, and what became of it.</summary>
/// <param name="Asked">The entry it was asked with.</param>
/// <param name="CollectOn">The day they were asked to come; null for the next they can.</param>
public sealed record Parcel(
    Guid Asked,
    IReadOnlyList<string> Serials,
    string Carrier,
    Holder To,
    DateOnly? CollectOn,
    DateTimeOffset AskedAt,
    string AskedBy
)
{
    /// <summary>The carrier's number for it; null until they have answered.</summary>
    public string? Label { get; init; }

    /// <summary>When that was; what they say of it was so after that, whatever their clock says.</summary>
    public DateTimeOffset? BookedAt { get; init; }

    /// <summary>The day they say they come.</summary>
    public DateOnly? CollectsOn { get; init; }

    /// <summary>Why they do not fetch it; null where they do, or have not answered.</summary>
    public string? Refused { get; init; }

    /// <summary>What they said of it since, oldest first.</summary>
    public ImmutableList<Tracked> Said { get; init; } = [];

    // What goes back and forth for weeks is told by its last steps.
    private const int MostKept = 50;

    /// <summary>Of what a carrier tells at once, so many of the last steps are taken.</summary>
    public const int MostTold = 200;

    /// <summary>It is asked for or on its way, and nobody packs its drives into another.</summary>
    public bool Stands => Refused is null && !Said.Exists(s => Ends(s.Step));

    /// <summary>Whether a drive still goes this way, or went.</summary>
    public bool IsWaitedFor(Ticket ticket) => ticket.Returns.Exists(r => Serials.Contains(r.Serial) && GoesWithIt(r));

    /// <summary>They come for it, and nothing goes with them any more: it is to be called off.</summary>
    public bool IsForNothing(Ticket ticket) => Label is not null && Said.IsEmpty && !IsWaitedFor(ticket);

    private bool GoesWithIt(PartReturn back) =>
        back.SentAt is null
            ? back.ArrivedAt is null && back.To with { Shelf = null } == To with { Shelf = null }
            : Carrier.Equals(back.Carrier?.Trim(), StringComparison.OrdinalIgnoreCase);

    public bool Is(string carrier, string label) =>
        Label is not null
        && Label.Equals(label.Trim(), StringComparison.OrdinalIgnoreCase)
        && Carrier.Equals(carrier.Trim(), StringComparison.OrdinalIgnoreCase);

    /// <summary>With one more thing that was said; of too many, the oldest goes that ended nothing.</summary>
    internal Parcel With(Tracked said)
    {
        var all = Said.Add(said);
        return this with { Said = all.Count > MostKept ? all.RemoveAt(Math.Max(0, all.FindIndex(s => !Ends(s.Step)))) : all };
    }

    private static bool Ends(ParcelStep step) => step is ParcelStep.Delivered or ParcelStep.Lost or ParcelStep.ComesBack;

    /// <summary>How it stands, as one sentence without its times.</summary>
    public string Stand() =>
        Refused is { } no ? $"{Carrier} does not fetch it: {no}"
        : Label is null ? $"{Carrier} was asked to fetch it, and has not answered yet"
        : Said is [.., var last] ? $"{Carrier} {Label}: {Told(last)}"
        : $"{Carrier} {Label}: {(CollectsOn is { } day ? $"they come on {Day(day)}" : "they have it booked")}";

    internal static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    internal static string Told(Tracked said) => Words.Of(said.Step).Replace('-', ' ') + Where(said);

    private static string Where(Tracked last) =>
        (string.IsNullOrWhiteSpace(last.Place) ? "" : $", {last.Place}") + (string.IsNullOrWhiteSpace(last.Says) ? "" : $": {last.Says}");
}
