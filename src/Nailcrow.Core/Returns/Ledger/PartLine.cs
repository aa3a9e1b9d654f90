using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Ledger;

/// <summary>One part's whole life in the ledger: the fold of its movements, whatever the order in which they came.</summary>
public sealed record PartLine(string Serial)
{
    /// <summary>What is so, oldest first; what was undone is not among it.</summary>
    public IReadOnlyList<Movement> Movements { get; private init; } = [];

    /// <summary>Who holds it; null where nothing has been told of it.</summary>
    public Holder? Holder { get; private init; }

    /// <summary>Since when, and by which movement.</summary>
    public Movement? Last { get; private init; }

    /// <summary>The tickets it is set aside for: more than one is a trouble that somebody has to settle.</summary>
    public IReadOnlyList<long> ReservedFor { get; private init; } = [];

    /// <summary>Where it is to go; null once somebody has it who may keep it.</summary>
    public Announcement? Going { get; private init; }

    /// <summary>As what it came back to a depot where nobody has looked at it yet; null where nobody has to.</summary>
    public Announcement? ToInspect { get; private init; }

    /// <summary>
    /// Why it lies apart from all stock in its depot or van: to be destroyed, as evidence, or because it is known to be bad. Null for
    /// what lies there as a part.
    /// </summary>
    public SetApart? Apart { get; private init; }

    public PartData? Part { get; private init; }

    /// <summary>The machine whose data may still be on it: it was in a bay there, and no wipe is on record since.</summary>
    public string? UnwipedFrom { get; private init; }

    /// <summary>When it was wiped last.</summary>
    public DateTimeOffset? WipedAt => Movements.LastOrDefault(m => m.Kind == MovementKind.Wiped)?.At;

    public static PartLine Of(string serial, IEnumerable<Movement> movements)
    {
        var all = InOrder(movements);
        var undone = all.Exists(m => m.Of is not null) ? UndoneIn(all) : System.Collections.Frozen.FrozenSet<Guid>.Empty;
        // A part came before anything else was done with it, whenever a list said so. What happened in one moment goes by the entries
        // that tell of it, as on their ticket.
        var so = all.FindAll(m => m.Of is null && !undone.Contains(m.Id));
        if (!IsSorted(so, InTime))
            so = [.. so.Order(Comparer<Movement>.Create(InTime))];
        var fold = new Fold();
        foreach (var movement in so)
            fold.Add(movement);
        return new PartLine(SerialNumber.Normalise(serial))
        {
            Movements = so,
            Holder = fold.Holder,
            Last = fold.Last,
            ReservedFor = Reservations(so),
            Going = fold.Going,
            // Nobody looks at what is not on record yet: whose clock was behind has looked at it all the same.
            ToInspect =
                fold.ToInspect is null || so.Exists(m => m.Kind == MovementKind.Inspected && m.Seq > fold.CameBack?.Seq)
                    ? null
                    : fold.ToInspect,
            Apart = fold.CameAs ?? (fold.Holder is { Kind: HolderKind.Depot or HolderKind.Van } ? fold.Bad : null),
            Part = fold.Part,
            UnwipedFrom = fold.UnwipedFrom,
        };
    }

    /// <summary>Each once, as they were written down. They nearly always come so.</summary>
    private static List<Movement> InOrder(IEnumerable<Movement> movements)
    {
        var all = movements as List<Movement> ?? [.. movements];
        return IsSorted(all, (a, b) => a.Seq < b.Seq ? -1 : 1) ? all : [.. all.DistinctBy(m => m.Id).OrderBy(m => m.Seq)];
    }

    private static int InTime(Movement a, Movement b) =>
        (a.Kind != MovementKind.Came).CompareTo(b.Kind != MovementKind.Came) is var came and not 0 ? came
        : a.At.CompareTo(b.At) is var at and not 0 ? at
        : (a.Entry ?? a.Id).CompareTo(b.Entry ?? b.Id);

    private static bool IsSorted(List<Movement> all, Comparison<Movement> by)
    {
        for (var i = 1; i < all.Count; i++)
            if (by(all[i - 1], all[i]) > 0)
                return false;
        return true;
    }

    /// <summary>The lines that were not so, as the last word on each has it.</summary>
    public static IReadOnlySet<Guid> UndoneIn(IEnumerable<Movement> movements) =>
        movements
            .Where(m => m.Of is not null)
            .GroupBy(m => m.Of ?? Guid.Empty)
            .Where(g => g.MaxBy(m => m.Seq)?.Kind == MovementKind.Undone)
            .Select(g => g.Key)
            .ToHashSet();

    /// <summary>
    /// What has to be added to a part's lines so that they say a movement: nothing where they say it already, that it is so after all
    /// where it was undone.
    /// </summary>
    /// <param name="kept">All lines of the part so far.</param>
    /// <param name="cause">The entry of a ticket that says it; null for what stores does by itself.</param>
    public static Movement? Due(string serial, IReadOnlyCollection<Movement> kept, Movement movement, Entry? cause)
    {
        var line = Of(serial, kept);
        if (kept.Any(m => m.Id == movement.Id))
            return movement.Of is not null || cause is null || line.Movements.Any(m => m.Id == movement.Id)
                ? null
                : TicketMovements.Redone(movement, cause);
        return movement.Kind switch
        {
            MovementKind.Undone when kept.All(m => m.Id != movement.Of) => null,
            MovementKind.Reserved when movement.To is null && line.ReservedFor.Contains(movement.Ticket ?? 0) => null,
            MovementKind.Released when !line.ReservedFor.Contains(movement.Ticket ?? 0) => null,
            _ => movement,
        };
    }

    /// <summary>What movements add up to, one after the other. A balance goes over twenty million of them: it is changed in place.</summary>
    private sealed class Fold
    {
        private const string AnotherMachine = "another machine";

        private static readonly string DeadOnArrival = Words.Of(ReturnReason.DeadOnArrival);
        private static readonly string ToBeDestroyed = Words.Of(ReturnReason.ToBeDestroyed);
        private static readonly string Evidence = Words.Of(ReturnReason.Evidence);

        public Holder? Holder { get; private set; }
        public Movement? Last { get; private set; }
        public Announcement? Going { get; private set; }
        public Announcement? ToInspect { get; private set; }

        /// <summary>The movement by which it came back so.</summary>
        public Movement? CameBack { get; private set; }
        public SetApart? CameAs { get; private set; }

        /// <summary>It was dead when it came or failed in a machine, and nobody has found since that nothing is wrong with it.</summary>
        public SetApart? Bad { get; private set; }
        public PartData? Part { get; private set; }
        public string? UnwipedFrom { get; private set; }

        public void Add(Movement m)
        {
            Part = m.Part ?? Part;
            var stays = m.To is null || (m.Kind == MovementKind.Reserved && Holder?.Kind == m.To.Kind && Holder.Name == m.To.Name);
            if (!stays)
                Goes(m);
            else
                Going = m.Going ?? Going;
            // What a machine has taken since is not dead.
            Bad = Dies(m) ?? (m.To?.Kind == HolderKind.Bay || m.Found == InspectionFinding.NothingWrong ? null : Bad);
            if (m.Kind == MovementKind.Wiped)
                (UnwipedFrom, CameAs) = (null, CameAs == SetApart.Evidence ? null : CameAs); // who wipes it has no more use for it as that
            else
                UnwipedFrom = m.Asset ?? UnwipedFrom ?? (m.GivenUpAs == NoReplacement.CarriesOldData ? AnotherMachine : m.Part?.UsedIn);
        }

        private void Goes(Movement m)
        {
            var announced = Going;
            (Holder, Last) = (m.To, m);
            Going = m.To is { MayKeep: true } ? null : m.Going ?? Going;
            if (m.To?.Kind != HolderKind.Depot)
                (ToInspect, CameBack, CameAs) = (null, null, null);
            // What was announced to the depot it came to is looked at there; what leaves for elsewhere is not.
            else if (announced is { To.Kind: HolderKind.Depot } && announced.To.Name == m.To.Name)
                (ToInspect, CameBack, CameAs) = (announced, m, ApartAs(announced));
        }

        private static SetApart? Dies(Movement m) =>
            m.GivenUpAs == NoReplacement.DeadOnArrival || m.Going?.Reason == DeadOnArrival ? SetApart.DeadOnArrival
            : m.Failed == true ? SetApart.Failed
            : null;

        private static SetApart? ApartAs(Announcement announced) =>
            announced.Reason == ToBeDestroyed ? SetApart.ToBeDestroyed
            : announced.Reason == Evidence ? SetApart.Evidence
            : null;
    }

    /// <summary>Decisions, so they go by when they were taken down: what comes late was ruled on when it came.</summary>
    private static IReadOnlyList<long> Reservations(List<Movement> so)
    {
        var tickets = new List<long>();
        if (!so.Exists(m => m.Kind == MovementKind.Reserved))
            return tickets;
        foreach (var m in so.Where(m => m.Ticket is not null).OrderBy(m => m.Seq))
            if (m.Kind == MovementKind.Reserved && !tickets.Contains(m.Ticket ?? 0))
                tickets.Add(m.Ticket ?? 0);
            else if (m.Kind == MovementKind.Released || m.To?.Kind == HolderKind.Bay)
                tickets.Remove(m.Ticket ?? 0);
        return tickets;
    }
}
