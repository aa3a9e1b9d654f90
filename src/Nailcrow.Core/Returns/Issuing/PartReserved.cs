using System.Collections.Immutable;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Issuing;

/// <summary>The replacement set aside for a ticket, and who has it.</summary>
/// <param name="GivenUp">Why it is none after all; its place waits for another.</param>
public sealed record ReservedPart(
    string Serial,
    string Model,
    long Bytes,
    string Depot,
    string? IssuedTo = null,
    string? OverruledBecause = null,
    NoReplacement? GivenUp = null
);

/// <summary>A replacement is set aside in a depot for this ticket.</summary>
/// <param name="Warnings">What speaks against it and was overruled, as it was told then.</param>
/// <param name="OverruledBecause">Why it is taken all the same; whose name it has is the entry's.</param>
public sealed record PartReserved(
    string Serial,
    string Model,
    long Bytes,
    string Depot,
    IReadOnlyList<string>? Warnings = null,
    string? OverruledBecause = null
) : DecisionBody
{
    private const string GiveUpFirst = "Another takes the place of one that was given up.";

    public override string Told() =>
        $"Reserved {Serial}, {Model}, {ByteSize.Both(Bytes)}, at "
        + $"{Depot}{(OverruledBecause is { } because ? $", although: {string.Join(" ", Warnings ?? [])} Because: {because}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Stores, Role.Dispatcher, Role.Lead];

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : ticket.Parts.Find(p => p.GivenUp is not null && p.Serial == SerialNumber.Normalise(Serial))
            is { GivenUp: { } why and not (NoReplacement.NotNeeded or NoReplacement.FoundBetter) }
            ? $"{SerialNumber.Normalise(Serial)} was given up on this ticket: {EntryTold.Said(Words.Of(why))}. Take another part."
        : Replaced(ticket) is null && ticket.Parts.Count >= ticket.DrivesWanted
            ? ticket.Parts is [{ IssuedTo: { } holder } part]
                    ? $"{part.Serial} is already issued to {holder} for this ticket. {GiveUpFirst}"
                : $"All {ticket.Parts.Count} parts of this ticket are already issued. {GiveUpFirst}"
        : Target.LeastBytes(ticket, PlaceOfNext(ticket)) is { } needed && ByteSize.Labelled(Bytes) < needed
            ? $"{Serial} has {Bytes:N0} bytes; {needed:N0} are needed for the array to hold what it holds now."
        : Warnings is [_, ..] && string.IsNullOrWhiteSpace(OverruledBecause)
            ? $"{string.Join(" ", Warnings)} Take another part, or say why this one is taken all the same."
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp)
    {
        var serial = SerialNumber.Normalise(Serial);
        var part = new ReservedPart(serial, Model, Bytes, Depot, OverruledBecause: OverruledBecause);
        var exchanged = Replaced(ticket) is { } old ? ticket.WithAnotherPart(old.Serial, serial, stamp) : ticket;
        return exchanged with
        {
            Parts = With(ticket, part),
            GivenUp = ticket.GivenUp.RemoveAll(p => p.Serial == serial),
            Custody = ticket.Custody.Move(serial, Holder.OfPlace(Depot), stamp),
        };
    }

    /// <summary>One drive, one part: another one takes the place of what is only set aside; several drives each have theirs.</summary>
    private static ImmutableList<ReservedPart> With(Ticket ticket, ReservedPart part) =>
        Replaced(ticket) is { } old ? ticket.Parts.Replace(old, part) : ticket.Parts.Add(part);

    /// <summary>Which of several drives the next part that is set aside is for, counted from 0 in the order in which they were chosen.</summary>
    public static int PlaceOfNext(Ticket ticket) => Replaced(ticket) is { } old ? ticket.Parts.IndexOf(old) : ticket.Parts.Count;

    /// <summary>What was given up first of all, whose place waits; else what nobody has in hand yet.</summary>
    private static ReservedPart? Replaced(Ticket ticket) =>
        ticket.Parts.Find(p => p.GivenUp is not null)
        ?? (ticket.Parts.Count < ticket.DrivesWanted ? null : ticket.Parts.FindLast(p => p.IssuedTo is null));
}
