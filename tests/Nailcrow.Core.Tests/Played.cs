using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests;

/// <summary>A ticket played entry by entry, a minute apart, each ruled on as the service does.</summary>
internal sealed class Played
{
    public static readonly Actor Ilka = new("ilka", [Role.Engineer]);
    public static readonly Actor Tamsel = new("tamsel", [Role.Engineer]);
    public static readonly Actor Sefa = new("sefa", [Role.Stores]);
    public static readonly Actor Lioth = new("lioth", [Role.Lead]);

    private TicketRecord _record = TicketRecord.Of(1001, []);

    public DateTimeOffset Now { get; set; } = Some.Noon;

    public TicketRecord Record => _record;

    public Ticket Ticket => _record.Ticket;

    public IReadOnlyList<Entry> Entries => _record.Arrived;

    public RunStep? Step => Ticket.Sheet?.Step(Ticket.Run?.Current);

    public static Played Reported(DataAgreement? agreed = null)
    {
        var played = new Played();
        played.Does(
            new FaultReported(
                "FSC-1",
                Some.Chassis,
                "Brackmere B12",
                "Corrin Trust",
                "Corrin",
                "Hall",
                JobKind.Fault,
                "Amber lamp",
                "2",
                Some.Bad,
                DataAgreed: agreed
            )
        );
        return played;
    }

    /// <summary>On site, with the part in hand, a snapshot and a run sheet.</summary>
    public static Played WithSheet(DataAgreement? agreed = null)
    {
        var played = Reported(agreed);
        played.Does(new EngineerAssigned("ilka"));
        played.Does(new SnapshotTaken(Some.Snapshot()));
        played.Does(new PartReserved(Some.New, "Cindral C8", 8_000_000_000_000, "Main stores"), Sefa);
        played.Does(new PartIssued(Some.New, "ilka"), Sefa);
        played.Does(new ArrivedOnSite());
        var target = Some.Snapshot().BayLabelled("2") ?? throw new InvalidOperationException("Some.Snapshot has a bay 2.");
        var facts = new SheetFacts(
            Some.Model,
            "FSC-1",
            Some.Chassis,
            "Corrin",
            "Hall",
            "vault",
            [new(target.Label, Some.Bad, target.Name, Some.New)],
            TicketFacts.Ordinary
        );
        played.Does(new SheetCompiled(((Parsed<RunSheet>.Ok)SheetCompiler.Compile(Some.Procedure(), facts, Guid.NewGuid())).Value));
        return played;
    }

    /// <summary>Followed as it should go, up to where the run stands at a step.</summary>
    public static Played At(string step, DataAgreement? agreed = null)
    {
        var played = WithSheet(agreed);
        for (var asked = 0; played.Step is { } current && current.Id != step && asked < 100; asked++)
            played.GoesOn(current);
        played.Ticket.Run?.Current.ShouldBe(step == "end" ? null : step);
        return played;
    }

    /// <summary>Writes an entry that has to be accepted.</summary>
    public void Does(EntryBody body, Actor? by = null)
    {
        Ruling.On(Ticket, body, by ?? Ilka, Now).ShouldBe(new Ruling.Accepted());
        Arrives(body, by);
    }

    public void Answers(string answer, Actor? by = null) => Does(new StepAnswered(Sheet, Current, answer), by);

    public void Passes() => Does(new StepPassed(Sheet, Current));

    /// <summary>Why an entry is not accepted now.</summary>
    public string Refusal(EntryBody body, Actor? by = null) =>
        Ruling.On(Ticket, body, by ?? Ilka, Now) switch
        {
            Ruling.Refused(var reason) => reason,
            Ruling.Unusable(var reason) => reason,
            Ruling.NotAllowed(var reason) => reason,
            _ => "accepted",
        };

    public string PassRefusal() => Refusal(new StepPassed(Sheet, Current));

    /// <summary>An entry arrives, whatever is thought of it; it may have happened earlier than now.</summary>
    public Entry Arrives(EntryBody body, Actor? by = null, DateTimeOffset? at = null, Guid? id = null)
    {
        Now = Now.AddMinutes(1);
        var entry = _record.Next(new(id ?? Guid.CreateVersion7(Now), at ?? Now, 0, by ?? Ilka, body), Now);
        _record = _record.With(entry);
        return entry;
    }

    private Guid Sheet => Ticket.Sheet?.Id ?? Guid.Empty;

    private string Current => Ticket.Run?.Current ?? "end";

    public void GoesOn(RunStep step)
    {
        if (step is { Kind: StepKind.Gate, Gate: GateFact.SnapshotBefore })
            Does(new SnapshotTaken(Some.Snapshot()));
        if (step.Gate is GateFact.NewDriveSeen)
            Does(new SnapshotTaken(Some.Snapshot(badRole: BayRole.Unclaimed, badSerial: Some.New)));
        if (step.Gate is GateFact.RebuildSeen)
            Does(new ReadingTaken("vault", Progress.Running, RebuildPhase.Rebuilding, "person", 1m));
        if (step.Gate is GateFact.DriveJoined or GateFact.ArrayWhole)
            Does(new SnapshotTaken(Some.Snapshot(state: ArrayState.Whole, badRole: BayRole.Member, badSerial: Some.New)));
        Now = Now.AddSeconds(step.Kind == StepKind.Hold ? step.Seconds ?? 0 : 0);
        if (step.IsPassed)
            Passes();
        else
            Answers(
                step.Against switch
                {
                    ScanTarget.Chassis => Some.Chassis,
                    ScanTarget.DriveOut => Some.Bad,
                    ScanTarget.DriveIn => Some.New,
                    _ when step.Erases => $"2 {Some.New}",
                    _ => step.Kind == StepKind.Read ? "Nightly, says the archivist" : step.Answers[0].Answer,
                }
            );
    }
}
