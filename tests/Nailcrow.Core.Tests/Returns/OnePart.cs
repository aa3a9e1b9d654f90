using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>One part and what is done with it, for tests of what the ledger makes of that.</summary>
internal static class OnePart
{
    public const string Serial = "C8NEWW2286";

    private static readonly Actor Stores = new("sefa", [Role.Stores, Role.Lead]);

    /// <summary>What is done with one part, an hour apart, as a pen that writes it all down would.</summary>
    public sealed class Pen
    {
        private readonly Dictionary<string, List<Movement>> _lines = [];

        public TicketRecord Record { get; private set; } = TicketRecord.Of(1001, []);

        public void Arrives(Intent intent)
        {
            var entry = Record.Next(intent, Some.Noon.AddDays(30));
            var before = Record.Ticket;
            Record = Record.With(entry);
            Take(TicketMovements.Between(before, Record.Ticket, entry), entry);
        }

        public void Take(IEnumerable<Movement> movements, Entry? cause = null)
        {
            foreach (var movement in movements)
            {
                var kept = Of(movement.Serial);
                if (PartLine.Due(movement.Serial, kept, movement, cause) is { } due)
                    kept.Add(due with { Seq = kept.Count + 1 });
            }
        }

        public PartLine Line(string serial = Serial) => PartLine.Of(serial, Of(serial));

        private List<Movement> Of(string serial) => _lines.TryGetValue(serial, out var kept) ? kept : _lines[serial] = [];
    }

    public static Intent At(int hour, EntryBody body) =>
        new(Guid.CreateVersion7(Some.Noon.AddHours(hour)), Some.Noon.AddHours(hour), 0, Stores, body);

    public static readonly FaultReported Report = new(
        "FSC-1",
        "CH-1",
        "brackmere-b12",
        "Corrin Trust",
        "Corrin",
        "Hall",
        JobKind.Fault,
        "Lamp"
    );

    /// <summary>A part's way to a bay, out of it as dead, and back; one hand-over was a slip, and was put right.</summary>
    public static IReadOnlyList<Intent> ALife()
    {
        var slip = At(3, new PartIssued(Serial, "wenna"));
        return
        [
            At(0, Report),
            At(1, new PartReserved(Serial, "Cindral C8", 8_000_000_000_000, "Stores")),
            At(2, new PartIssued(Serial, "ilka")),
            slip,
            At(4, new DriveInserted("2", Serial)),
            At(5, new DriveWithdrawn("2", Serial)),
            At(6, new EntryCorrected(slip.Id, "It was never out of the van.")),
            At(7, new DriveWiped(Serial, "Sanitize command")),
            At(8, new ReturnOpened(Serial, ReturnReason.BackToStores, new(HolderKind.Depot, "Stores"), DueBy: new(2026, 4, 1))),
            At(9, new ReturnSent(Serial, "Gullwing Freight")),
            At(10, new ReturnArrived(Serial, Serial, Shelf: "B2")),
        ];
    }
}
