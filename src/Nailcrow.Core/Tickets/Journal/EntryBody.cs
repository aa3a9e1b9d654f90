using System.Text.Json.Serialization;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal.Correcting;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>What an entry says. One file per kind: its fields, its fold rule and, for decisions, when it is refused.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FaultReported), "fault-reported")]
[JsonDerivedType(typeof(EvidenceSeen), "evidence-seen")]
[JsonDerivedType(typeof(EngineerAssigned), "engineer-assigned")]
[JsonDerivedType(typeof(VisitPlanned), "visit-planned")]
[JsonDerivedType(typeof(HandedOver), "handed-over")]
[JsonDerivedType(typeof(PutOnHold), "put-on-hold")]
[JsonDerivedType(typeof(HoldLifted), "hold-lifted")]
[JsonDerivedType(typeof(HelpCalled), "help-called")]
[JsonDerivedType(typeof(HelpAnswered), "help-answered")]
[JsonDerivedType(typeof(NoteWritten), "note-written")]
[JsonDerivedType(typeof(EntryCorrected), "entry-corrected")]
[JsonDerivedType(typeof(DiscrepancySettled), "discrepancy-settled")]
[JsonDerivedType(typeof(TicketLinked), "ticket-linked")]
[JsonDerivedType(typeof(TicketJoined), "ticket-joined")]
[JsonDerivedType(typeof(TicketClosed), "ticket-closed")]
[JsonDerivedType(typeof(TicketCancelled), "ticket-cancelled")]
[JsonDerivedType(typeof(TicketReopened), "ticket-reopened")]
[JsonDerivedType(typeof(SnapshotTaken), "snapshot-taken")]
[JsonDerivedType(typeof(MachineSeen), "machine-seen")]
[JsonDerivedType(typeof(LocatorSwitched), "locator-switched")]
[JsonDerivedType(typeof(ArrivedOnSite), "arrived-on-site")]
[JsonDerivedType(typeof(LeftSite), "left-site")]
[JsonDerivedType(typeof(SheetCompiled), "sheet-compiled")]
[JsonDerivedType(typeof(StepAnswered), "step-answered")]
[JsonDerivedType(typeof(StepDecided), "step-decided")]
[JsonDerivedType(typeof(StepPassed), "step-passed")]
[JsonDerivedType(typeof(StepTakenBack), "step-taken-back")]
[JsonDerivedType(typeof(SerialShown), "serial-shown")]
[JsonDerivedType(typeof(PhotoTaken), "photo-taken")]
[JsonDerivedType(typeof(PictureRemoved), "picture-removed")]
[JsonDerivedType(typeof(StepOverruled), "step-overruled")]
[JsonDerivedType(typeof(DrivePulled), "drive-pulled")]
[JsonDerivedType(typeof(DrivePutBack), "drive-put-back")]
[JsonDerivedType(typeof(DriveInserted), "drive-inserted")]
[JsonDerivedType(typeof(DriveReseated), "drive-reseated")]
[JsonDerivedType(typeof(DriveWithdrawn), "drive-withdrawn")]
[JsonDerivedType(typeof(DrivesChosen), "drives-chosen")]
[JsonDerivedType(typeof(SerialKnownElsewhere), "serial-known-elsewhere")]
[JsonDerivedType(typeof(SwappedBeside), "swapped-beside")]
[JsonDerivedType(typeof(MachineChanged), "machine-changed")]
[JsonDerivedType(typeof(PowerTold), "power-told")]
[JsonDerivedType(typeof(AdviceGiven), "advice-given")]
[JsonDerivedType(typeof(MovedAside), "moved-aside")]
[JsonDerivedType(typeof(ReadingTaken), "reading-taken")]
[JsonDerivedType(typeof(ReadingTakenBack), "reading-taken-back")]
[JsonDerivedType(typeof(RebuildChosen), "rebuild-chosen")]
[JsonDerivedType(typeof(DriveWiped), "drive-wiped")]
[JsonDerivedType(typeof(PartReserved), "part-reserved")]
[JsonDerivedType(typeof(PartIssued), "part-issued")]
[JsonDerivedType(typeof(PartGivenUp), "part-given-up")]
[JsonDerivedType(typeof(ReturnOpened), "return-opened")]
[JsonDerivedType(typeof(ReturnSent), "return-sent")]
[JsonDerivedType(typeof(ReturnArrived), "return-arrived")]
[JsonDerivedType(typeof(ReturnInspected), "return-inspected")]
[JsonDerivedType(typeof(ReturnSettled), "return-settled")]
[JsonDerivedType(typeof(DriveKept), "drive-kept")]
[JsonDerivedType(typeof(DriveDestroyed), "drive-destroyed")]
[JsonDerivedType(typeof(PartTakenBack), "part-taken-back")]
[JsonDerivedType(typeof(PartLost), "part-lost")]
[JsonDerivedType(typeof(PartUsedElsewhere), "part-used-elsewhere")]
[JsonDerivedType(typeof(CarrierAsked), "carrier-asked")]
[JsonDerivedType(typeof(CarrierAnswered), "carrier-answered")]
[JsonDerivedType(typeof(ParcelTracked), "parcel-tracked")]
[JsonDerivedType(typeof(MakerAsked), "maker-asked")]
[JsonDerivedType(typeof(MakerAnswered), "maker-answered")]
[JsonDerivedType(typeof(ReturnReminded), "return-reminded")]
[JsonDerivedType(typeof(PaperMailed), "paper-mailed")]
[JsonDerivedType(typeof(LetterWent), "letter-went")]
[JsonDerivedType(typeof(SuppliesUsed), "supplies-used")]
[JsonDerivedType(typeof(CustomerSignedOff), "customer-signed-off")]
public abstract record EntryBody
{
    /// <summary>Roles that may write this kind; one of them is enough. A method, so that it is no part of the JSON.</summary>
    public virtual IReadOnlyCollection<Role> Writers() => AllWriters;

    /// <summary>Everybody who works on tickets; an administrator keeps the house, and writes in no ticket.</summary>
    internal static readonly IReadOnlyCollection<Role> AllWriters = [Role.Engineer, Role.Dispatcher, Role.Stores, Role.Lead];

    /// <summary>Whoever stood before the machine; a lead writes it for one who cannot. Nobody else has seen it.</summary>
    internal static readonly IReadOnlyCollection<Role> OnSite = [Role.Engineer, Role.Lead];

    /// <summary>Null where anybody with the role may word it; else how whoever wants it written gets it from the service.</summary>
    public virtual string? ByServiceOnly() => null;

    /// <summary>The entry as one sentence, the same in the console, the command and the report.</summary>
    public abstract string Told();

    /// <summary>What makes this no usable record at all (a bay that does not exist, 140 %), or null.</summary>
    public virtual string? Problem(Ticket ticket) => null;

    /// <summary>The entry of this ticket without which it would not have been written; null for what stands by itself.</summary>
    internal virtual Guid? Cause() => null;

    /// <summary>The ticket as this entry leaves it.</summary>
    internal abstract Ticket Fold(Ticket ticket, Stamp stamp);
}

/// <summary>Something seen or done in the world. Never refused for contradicting the plan.</summary>
public abstract record FactBody : EntryBody;

/// <summary>Something chosen in Nailcrow. May be refused, with a reason a person can act on.</summary>
public abstract record DecisionBody : EntryBody
{
    /// <summary>Why this may not be decided now, or null if it may.</summary>
    public abstract string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now);

    /// <summary>Why this cannot have been decided at that time, whatever the ticket; null if it can.</summary>
    public virtual string? NotThen(DateTimeOffset happened) => null;

    /// <summary>True for what a lead may still decide once the ticket is closed or cancelled.</summary>
    public virtual bool MayFollowTheEnd() => false;
}
