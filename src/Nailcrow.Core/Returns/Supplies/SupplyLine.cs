using System.Collections.Immutable;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Supplies;

/// <summary>
/// How many of one supply there are, and with whom: the fold of its lines in the order in which they were written down. No count is
/// ever below nothing: what leaves a place that has fewer by the record was there, and is found.
/// </summary>
public sealed record SupplyLine
{
    public static readonly SupplyLine Nothing = new();

    /// <summary>Depots with their shelves, and vans; one that has none left stays, with 0.</summary>
    public ImmutableDictionary<Holder, long> Counts { get; private init; } = ImmutableDictionary<Holder, long>.Empty;

    public long Came { get; private init; }

    /// <summary>Counted or used, and not recorded there before.</summary>
    public long Found { get; private init; }

    public long Used { get; private init; }

    /// <summary>Recorded, and not there when somebody counted.</summary>
    public long Missing { get; private init; }

    /// <summary>How many there are by its counts.</summary>
    public long Held => Counts.Values.Sum();

    /// <summary>In less out less what is held; anything but 0 is a fault of ours.</summary>
    public long Difference => Came + Found - Used - Missing - Held;

    public static SupplyLine Of(IEnumerable<SupplyMove> moves) => So(moves).Aggregate(Nothing, (line, move) => line.With(move));

    /// <summary>One that goes on from what a list says of each place; what came and went before is not known to it.</summary>
    public static SupplyLine From(IEnumerable<KeyValuePair<Holder, long>> counts) =>
        Nothing with
        {
            Counts = counts.ToImmutableDictionary(),
            Found = counts.Sum(c => c.Value),
        };

    /// <summary>The lines that are so, in order; those that were put right are not among them.</summary>
    public static IReadOnlyList<SupplyMove> So(IEnumerable<SupplyMove> moves)
    {
        var all = moves.DistinctBy(m => m.Id).OrderBy(m => m.Seq).ToList();
        var undone = all.Where(m => m.Of is not null)
            .GroupBy(m => m.Of ?? Guid.Empty)
            .Where(g => g.Last().Way == SupplyWay.Undone)
            .Select(g => g.Key)
            .ToHashSet();
        return all.FindAll(m => m.Of is null && !undone.Contains(m.Id));
    }

    public SupplyLine With(SupplyMove move) =>
        move switch
        {
            { Way: SupplyWay.Came, To: { } to } => Put(to, move.Count) with { Came = Came + move.Count },
            { Way: SupplyWay.Moved, From: { } from, To: { } to } => Take(from, move.Count).Put(to, move.Count),
            { Way: SupplyWay.Used, From: { } from } => Take(from, move.Count) with { Used = Used + move.Count },
            { Way: SupplyWay.Counted, From: { } at } => Set(at, move.Count),
            _ => this,
        };

    public long At(Holder holder) => Counts.GetValueOrDefault(holder);

    private SupplyLine Put(Holder to, long count) => this with { Counts = Counts.SetItem(to, At(to) + count) };

    private SupplyLine Take(Holder from, long count)
    {
        var found = Math.Max(0, count - At(from));
        return this with { Found = Found + found, Counts = Counts.SetItem(from, At(from) + found - count) };
    }

    private SupplyLine Set(Holder at, long count)
    {
        var more = count - At(at);
        return this with { Counts = Counts.SetItem(at, count), Found = Found + Math.Max(0, more), Missing = Missing + Math.Max(0, -more) };
    }

    /// <summary>
    /// What has to be added to a supply's lines so that they say a move: nothing where they say it already, that it is so after all
    /// where it was undone.
    /// </summary>
    public static SupplyMove? Due(IReadOnlyCollection<SupplyMove> kept, SupplyMove move, Entry? cause) =>
        move.Way == SupplyWay.Undone && kept.All(m => m.Id != move.Of) ? null
        : kept.All(m => m.Id != move.Id) ? move
        : move.Of is not null || cause is null || So(kept).Any(m => m.Id == move.Id) ? null
        : SuppliesOf.Redone(move, cause);

    /// <summary>Each line as a sentence, oldest first, with what it found and what it missed.</summary>
    public static IReadOnlyList<string> Told(IEnumerable<SupplyMove> moves)
    {
        var (line, told) = (Nothing, new List<string>());
        foreach (var move in So(moves))
        {
            var before = line;
            line = line.With(move);
            told.Add(Sentence(move, before, line) + (move.Note is { } note ? $" {note}" : ""));
        }
        return told;
    }

    private static string Sentence(SupplyMove move, SupplyLine before, SupplyLine after)
    {
        var more = after.Found - before.Found;
        var found = more > 0 ? $" By the record {before.At(move.From ?? move.To!):N0} were there: {more:N0} found." : "";
        return move.Way switch
        {
            SupplyWay.Came => $"{move.Count:N0} came to {move.To}.",
            SupplyWay.Moved => $"{move.Count:N0} went from {move.From} to {move.To}.{found}",
            SupplyWay.Used when move.Ticket is { } ticket =>
                $"{move.Count:N0} used on {TicketNumber.Text(ticket)}, from {move.From}.{found}",
            SupplyWay.Used => $"{move.Count:N0} used up, from {move.From}.{found}",
            _ => $"Counted in {move.From}: {move.Count:N0}{Against(move.Count - before.At(move.From!))}.",
        };
    }

    private static string Against(long more) =>
        more switch
        {
            0 => ", as recorded",
            > 0 => $", {more:N0} more than recorded",
            _ => $", {-more:N0} fewer than recorded",
        };
}
