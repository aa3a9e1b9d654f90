using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Core.Tickets.Waiting;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>Another open ticket of the same machine.</summary>
public sealed record TicketBeside(long Number, string Symptom, string? Bay, Stage Stage, string? Engineer);

/// <summary>A ticket whole, as its journal tells it now.</summary>
public sealed record TicketView
{
    public required long Number { get; init; }
    public required long Head { get; init; }
    public required FaultReported Report { get; init; }
    public required DateTimeOffset ReceivedAt { get; init; }
    public required Stage Stage { get; init; }
    public required string? Engineer { get; init; }
    public required string? HoldReason { get; init; }
    public required DateTimeOffset? HoldUntil { get; init; }
    public required HelpCall? Help { get; init; }
    public required DateTimeOffset? ArrivedAt { get; init; }

    /// <summary>Who was at the site, each with their own times.</summary>
    public required IReadOnlyList<SiteVisit> SiteVisits { get; init; }
    public required DateTimeOffset? EndedAt { get; init; }
    public required IReadOnlyList<Evidence> Evidence { get; init; }
    public required string? Backup { get; init; }
    public required string? BackupDetail { get; init; }
    public required Danger Danger { get; init; }

    /// <summary>What was moved to get at the machine and is not back yet.</summary>
    public required IReadOnlyList<string> Aside { get; init; }

    /// <summary>What the customer was advised to do beside this ticket's work.</summary>
    public required IReadOnlyList<AdviceGiven> Advice { get; init; }

    /// <summary>The times in which the machine was off, each as a sentence, oldest first.</summary>
    public required IReadOnlyList<string> Power { get; init; }

    /// <summary>What the array held, will hold by forecast and holds by its own screen; empty where nothing is to become of its space.</summary>
    public required IReadOnlyList<string> Space { get; init; }

    /// <summary>Of losing data while it rebuilds; null where there is nothing to reckon them from.</summary>
    public required LossChances? Chances { get; init; }
    public required Exposure? Exposure { get; init; }
    public required IReadOnlyList<Deadline> Deadlines { get; init; }
    public required PlannedVisit? Visit { get; init; }
    public required NextAction Next { get; init; }
    public required Snapshot? Before { get; init; }
    public required Snapshot? Latest { get; init; }
    public required Snapshot? After { get; init; }
    public required IReadOnlyList<BayChange> Changes { get; init; }
    public required bool LocatorOn { get; init; }
    public required ReservedPart? Part { get; init; }
    public required IReadOnlyList<ReservedPart> Parts { get; init; }

    /// <summary>The same parts as people are told of them, each with where it is; also those that were given up and whose place waits.</summary>
    /// <remarks>A release that does not tell them tells its parts.</remarks>
    public IReadOnlyList<Replacement> Replacements
    {
        get => field ?? [.. Parts.Select(Replacement.By)];
        init;
    }

    /// <summary>The serials of the drives it swaps, in their order; empty where only the reported one is.</summary>
    public required IReadOnlyList<string> Chosen { get; init; }

    /// <summary>The drives it could swap, the worst first; empty once one has been moved.</summary>
    public required IReadOnlyList<DriveInTurn> InTurn { get; init; }
    public required RunView? Run { get; init; }
    public required Swap Swap { get; init; }
    public required IReadOnlyList<Swap> EarlierSwaps { get; init; }
    public required IReadOnlyList<Photo> Photos { get; init; }
    public required RebuildView Rebuild { get; init; }
    public required IReadOnlyList<CustodyMove> Custody { get; init; }
    public required IReadOnlyList<PartReturn> Returns { get; init; }

    /// <summary>What without serials was used up on it, each as a sentence.</summary>
    public required IReadOnlyList<string> Supplies { get; init; }

    /// <summary>What went out by mail or is to, each as a sentence.</summary>
    public required IReadOnlyList<string> Letters { get; init; }

    /// <summary>Boxes that carriers were asked to fetch, each as it stands.</summary>
    public required IReadOnlyList<ParcelView> Parcels { get; init; }

    /// <summary>What makers were asked about drives of it, each as it stands.</summary>
    public required IReadOnlyList<ClaimView> Claims { get; init; }

    /// <summary>What is known of its drives' warranties, each as a sentence.</summary>
    public required IReadOnlyList<string> Warranties { get; init; }
    public required IReadOnlyList<Discrepancy> Discrepancies { get; init; }
    public required string? SignedOffBy { get; init; }

    /// <summary>The customer's own hand, where they signed on a screen; null where they did not.</summary>
    public required SignedOnScreen? Signed { get; init; }
    public required IReadOnlyList<ClosingCondition> Closing { get; init; }

    /// <summary>The appliance's model, for the drawing; null where it is not known any more.</summary>
    public required ApplianceModel? Model { get; init; }

    /// <summary>The enclosures as one stands before them.</summary>
    public required IReadOnlyList<ChassisDrawing>? Drawing { get; init; }

    /// <summary>The site's IANA time zone.</summary>
    public required string? Zone { get; init; }

    /// <summary>Where the machine stands, which may have been put right since the report.</summary>
    public required string Location { get; init; }

    /// <summary>What one has to know to get in at the site.</summary>
    public required string? Access { get; init; }

    /// <summary>Whom to ask at the customer's, and what was agreed there, as it is now; empty where the machine is not known any more.</summary>
    public required IReadOnlyList<CustomerLine> Customer { get; init; }

    /// <summary>On whose word and for what price this was done, where that had to be agreed; null where it had not, or is not yet.</summary>
    public required string? Agreed { get; init; }

    /// <summary>Whether the service can ask the machine itself.</summary>
    public required bool Reachable { get; init; }

    /// <summary>Every move there is, each with whether whoever asked may make it now, and if not why.</summary>
    public required IReadOnlyList<OfferedMove> Moves { get; init; }

    /// <summary>Label of the bay the ticket is about; null where nobody knows.</summary>
    public required string? TargetBay { get; init; }

    /// <summary>Other tickets that have to do with this one.</summary>
    public required IReadOnlyList<TicketLink> Links { get; init; }

    /// <summary>The other open tickets of its machine.</summary>
    public required IReadOnlyList<TicketBeside> Beside { get; init; }

    /// <summary>Who holds each drive that moved.</summary>
    public required IReadOnlyList<HeldDrive> Held { get; init; }

    public static TicketView Of(TicketRecord record, Surroundings known, Actor actor, DateTimeOffset now)
    {
        var ticket = record.Ticket;
        var danger = Danger.Of(ticket);
        return new()
        {
            Number = ticket.Number,
            Head = record.Head,
            Report = ticket.Report ?? FaultReported.Lost,
            ReceivedAt = ticket.ReceivedAt ?? record.Arrived[0].RecordedAt,
            Stage = ticket.Stage,
            Engineer = ticket.Engineer,
            HoldReason = ticket.HoldReason,
            HoldUntil = ticket.HoldUntil,
            Help = ticket.Help,
            ArrivedAt = ticket.ArrivedAt,
            SiteVisits = ticket.SiteVisits,
            EndedAt = ticket.EndedAt,
            Evidence = ticket.Evidence,
            Backup = ticket.Backup,
            BackupDetail = ticket.BackupDetail,
            Danger = danger,
            Aside = ticket.Aside,
            Advice = ticket.Advice,
            Power = [.. ticket.Power.Select(p => p.Told())],
            Space = Swaps.Space.Of(ticket)?.Told() ?? [],
            Chances = ChancesOf(ticket, danger, known.Model),
            Exposure = Exposure.Of(ticket, now),
            Deadlines = Deadline.Of(ticket, now),
            Visit = ticket.Visit,
            Next = NextAction.Of(ticket, danger),
            Before = ticket.Before,
            Latest = ticket.Latest,
            After = ticket.After,
            Changes = ticket is { Before: { } before, Latest: { } latest } ? SnapshotComparison.Between(before, latest) : [],
            LocatorOn = ticket.LocatorOn,
            Part = ticket.Part,
            Parts = ticket.Parts,
            Replacements = Replacement.Of(ticket),
            Chosen = ticket.Chosen,
            InTurn = WorstFirst.Of(ticket, danger),
            Run = RunView.Of(ticket, known, now),
            Swap = ticket.Swap,
            EarlierSwaps = ticket.EarlierSwaps,
            Photos = [.. ticket.Photos.Select(p => p with { Removed = ticket.PicturesRemoved.GetValueOrDefault(p.Id) })],
            Rebuild = RebuildView.Of(ticket, known.Model, now),
            Custody = ticket.Custody.Moves,
            Returns = ticket.Returns,
            Supplies = [.. ticket.Supplies.Select(s => $"{s.Told()}, from {s.From}.")],
            Letters = [.. ticket.Letters.Where(l => !l.Waits || l.IsStillOf(ticket)).Select(l => l.Stand())],
            Parcels = [.. ticket.Parcels.Select(ParcelView.Of)],
            Warranties = [.. Target.Defective(ticket).Select(s => known.WarrantyTold(ticket, s, now)).OfType<string>()],
            Claims = [.. ticket.Claims.Select(c => ClaimView.Of(c, DateOnly.FromDateTime(now.UtcDateTime)))],
            Discrepancies = ticket.Discrepancies,
            SignedOffBy = ticket.SignedOffBy,
            Signed = ticket.Signed is { } signed ? signed with { Removed = ticket.PicturesRemoved.GetValueOrDefault(signed.Photo) } : null,
            Closing = ClosingCondition.Of(ticket),
            Model = known.Model,
            Drawing = known.Drawing,
            Zone = known.Zone,
            Location = known.Location ?? ticket.Report?.Location ?? "",
            Access = known.Access,
            Customer = known.Customer?.Lines() ?? [],
            Agreed = ticket.Agreed?.Says,
            Reachable = known.Reachable,
            Moves = MovesOf.Ticket(ticket, actor, now, known),
            TargetBay = Target.Label(ticket),
            Links = ticket.Links,
            Beside = [.. (known.Beside ?? []).Select(l => new TicketBeside(l.Number, l.Symptom.TrimEnd('.'), l.Bay, l.Stage, l.Engineer))],
            Held = HeldDrive.Of(ticket),
        };
    }

    private static LossChances? ChancesOf(Ticket ticket, Danger danger, ApplianceModel? model) =>
        ticket.Latest is { } now && model is not null && now.Arrays.FirstOrDefault(a => a.Name == danger.Array) is { } array
            ? LossChances.Of(
                now,
                array,
                model.MegabytesPerSecond,
                pulled: ticket.IsEnded ? null : now.BayLabelled(Target.StillIn(ticket, now))
            )
            : null;
}
