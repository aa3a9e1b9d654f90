using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Issuing;

/// <summary>A replacement of a ticket, as people are told of it.</summary>
/// <param name="Is">Where it is, or why it is none after all: "set aside in North depot", "with tamsel", "fitted", "given up: dead on arrival".</param>
/// <param name="OverruledBecause">Why it was taken although something spoke against it.</param>
public sealed record Replacement(string Serial, string Model, string Is, string? OverruledBecause = null)
{
    internal static IReadOnlyList<Replacement> Of(Ticket ticket) =>
        [.. ticket.Parts.Select((p, nth) => new Replacement(p.Serial, p.Model, IsNow(ticket, p) + Doubt(ticket, nth), p.OverruledBecause))];

    /// <summary>By what is said of the part alone, where nothing else of its ticket is at hand.</summary>
    internal static Replacement By(ReservedPart part) => new(part.Serial, part.Model, IsBy(part), part.OverruledBecause);

    // What went in and turned out to be none is still in its bay: that it was given up counts more.
    private static string IsNow(Ticket ticket, ReservedPart part) =>
        part.GivenUp is not null ? IsBy(part)
        : Target.WentIn(ticket, part.Serial) ? "fitted"
        : part.IssuedTo is null && Target.PartElsewhere(ticket, part.Serial) is { } where ? where
        : IsBy(part);

    private static string IsBy(ReservedPart part) =>
        part.GivenUp is { } why ? $"given up: {EntryTold.Said(Words.Of(why))}"
        : part.IssuedTo is { } holder ? $"with {holder}"
        : $"set aside in {part.Depot}";

    private static string Doubt(Ticket ticket, int nth) =>
        TooSmallByNow.Of(ticket, nth) is { } small ? $", and too small: {small.Needed:N0} bytes are needed" : "";
}
