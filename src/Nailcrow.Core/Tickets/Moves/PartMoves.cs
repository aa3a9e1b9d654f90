using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;
using static Nailcrow.Core.Tickets.Moves.Offering;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>What is done with parts: set aside, handed over, wiped, sent back, booked in.</summary>
internal static class PartMoves
{
    public static IEnumerable<OfferedMove> Of(Offering asked) =>
        [
            .. Reserving(asked),
            .. Issuing(asked),
            .. Wiping(asked),
            .. Returning(asked),
            .. AskedOutside.Of(asked),
            .. PartsEnding.Of(asked),
            .. Using(asked),
        ];

    private static IEnumerable<OfferedMove> Reserving(Offering asked)
    {
        var ticket = asked.Ticket;
        var least = Target.LeastBytes(ticket, PartReserved.PlaceOfNext(ticket));
        yield return asked.Entry(
            Move.ReservePart,
            "Reserve it",
            new PartReserved("", "", 0, ""),
            new PartReserved("SOME0001", Some, least ?? ByteSize.FewestOfADrive, Some),
            [
                new("serial", "Serial", FieldKind.Serial),
                new("model", "Model, as its label says"),
                new(
                    "bytes",
                    "Bytes",
                    FieldKind.Bytes,
                    Value: least is { } bytes ? $"{bytes}" : null,
                    Hint: least is { } needed ? $"At least {needed:N0}, {ByteSize.Both(needed)}: what the array uses of each member." : null
                ),
                new("depot", "Where it lies"),
                new("overruledBecause", "Why this one, if something speaks against it", FieldKind.Lines, Required: false, Most: 4_000),
            ]
        );
    }

    private static IEnumerable<OfferedMove> Issuing(Offering asked)
    {
        var ticket = asked.Ticket;
        foreach (var part in ticket.Parts.Where(p => p is { IssuedTo: null, GivenUp: null }))
            yield return asked.Entry(
                Move.IssuePart,
                $"Issue {part.Serial}",
                new PartIssued(part.Serial, ticket.Engineer ?? ""),
                new PartIssued(part.Serial, Some),
                [new("to", "To", FieldKind.Person, Value: ticket.Engineer)],
                part.Serial,
                ticket.IsEnded ? "The ticket is over."
                    : Target.PartElsewhere(ticket, part.Serial) is { } where ? $"It is {where}; it is issued once it is back."
                    : ticket.Engineer is null ? "Assign an engineer first; the replacement is issued to them."
                    : null
            );
        foreach (var part in ticket.Parts.Where(p => p.GivenUp is null))
            yield return asked.Entry(
                Move.GiveUpPart,
                $"{part.Serial} is no replacement",
                new PartGivenUp(part.Serial, NoReplacement.DeadOnArrival),
                new PartGivenUp(part.Serial, NoReplacement.DeadOnArrival, Some),
                [
                    new(
                        "reason",
                        "Why",
                        FieldKind.Choice,
                        Value: Words.Of(NoReplacement.DeadOnArrival),
                        Choices:
                        [
                            .. Enum.GetValues<NoReplacement>().Select(r => new FieldChoice(Words.Of(r), Words.Of(r).Replace('-', ' '))),
                        ]
                    ),
                    new("note", "What was seen", FieldKind.Lines, Required: false, Most: 4_000),
                ],
                part.Serial,
                ticket.IsEnded ? "The ticket is over."
                    : ticket.Swaps.Any(s => s.InSerial == part.Serial) ? $"{part.Serial} is in; what the run sheet asks of it says so."
                    : null
            );
        if (ticket.Parts.All(p => p.IssuedTo is not null))
            yield return asked.Entry(
                Move.IssuePart,
                "Issue a part",
                new PartIssued("", ""),
                new PartIssued("SOME0001", Some),
                notNow: ticket.Parts.Count == 0 ? "No part is reserved yet." : "Every part of this ticket is issued."
            );
    }

    private static IEnumerable<OfferedMove> Using(Offering asked)
    {
        yield return asked.Entry(
            Move.UseSupplies,
            "Something was used up",
            new SuppliesUsed("", 0),
            new SuppliesUsed(Some, 1),
            [
                new("supply", "What: drive carrier, screws, a cable", FieldKind.Supply, Most: SupplyName.MostCharacters),
                new("count", "How many", FieldKind.Number, Value: "1"),
                new("place", "Where it was taken from", Required: false, Hint: "A depot, or van of somebody; none is your own van."),
                new(
                    "asNamed",
                    "If its name is new",
                    FieldKind.Flag,
                    Required: false,
                    Hint: "Say yes where it reads nearly the same as another and is none of those.",
                    Choices: [new("", "ask me first"), new("true", "yes, it is new")]
                ),
            ]
        );
    }

    private static IEnumerable<OfferedMove> Wiping(Offering asked) =>
        asked
            .Ticket.Custody.Now.Where(held =>
                held.Holder.Kind is HolderKind.Engineer or HolderKind.Depot
                && Target.HoldsCustomersData(asked.Ticket, held.Serial)
                && !asked.Ticket.Returns.Exists(r => r.Serial == held.Serial && r.Reason == Words.Of(ReturnReason.Evidence))
            )
            .Select(held =>
                asked.Entry(
                    Move.RecordWipe,
                    $"{held.Serial} was wiped",
                    new DriveWiped(held.Serial, ""),
                    new DriveWiped(held.Serial, Some),
                    [new("method", "How it was wiped", Hint: "Overwritten once, sanitize command, degaussed.")],
                    held.Serial
                )
            );

    private static IEnumerable<OfferedMove> Returning(Offering asked)
    {
        var ticket = asked.Ticket;
        foreach (var (serial, holder) in ticket.Custody.Now)
        {
            if (holder.Kind != HolderKind.Engineer || ticket.Returns.Exists(r => r.Serial == serial))
                continue;
            if (ticket.GivenUp.Find(p => p.Serial == serial) is { GivenUp: NoReplacement.DeadOnArrival or NoReplacement.NotTaken })
            {
                yield return Opening(asked, serial, ReturnReason.DeadOnArrival, HolderKind.Maker);
                yield return Opening(asked, serial, ReturnReason.DeadOnArrival, HolderKind.Depot);
                continue;
            }
            if (IsUnusedPart(ticket, serial))
            {
                var opened = ticket.GivenUp.Exists(p => p.Serial == serial);
                yield return Opening(asked, serial, opened ? ReturnReason.BackOpened : ReturnReason.BackUnopened, HolderKind.Depot);
                continue;
            }
            var exchange = IsOwed(ticket, serial) ? ReturnReason.AdvanceExchange : ReturnReason.ExchangeUnderWarranty;
            yield return Opening(asked, serial, exchange, HolderKind.Maker);
            yield return Opening(asked, serial, ReturnReason.BackToStores, HolderKind.Depot);
        }
        foreach (var back in ticket.Returns.Where(r => r.SentAt is null && r.ArrivedAt is null))
        {
            var booked = ticket.Parcels.LastOrDefault(p => p is { Stands: true, Label: not null } && p.Serials.Contains(back.Serial));
            yield return asked.Entry(
                Move.SendReturn,
                "It is with the carrier",
                new ReturnSent(back.Serial, ""),
                new ReturnSent(back.Serial, Some),
                [
                    new("carrier", "Carrier", Value: booked?.Carrier),
                    new("tracking", "Their number for it", Required: false, Value: booked?.Label),
                ],
                back.Serial
            );
        }
        foreach (var back in ticket.Returns.Where(r => r.SentAt is not null && r.ArrivedAt is null))
        {
            yield return asked.Entry(
                Move.BookIn,
                "That is in the box",
                new ReturnArrived(back.Serial, ""),
                new ReturnArrived(back.Serial, Some),
                [
                    new("serialInBox", "Serial on the drive in the box", FieldKind.Serial),
                    new(
                        "state",
                        "How the box came",
                        FieldKind.Choice,
                        Value: Words.Of(BoxState.Sound),
                        Choices: [.. new[] { BoxState.Sound, BoxState.Damaged }.Select(s => new FieldChoice(Words.Of(s), Words.Of(s)))]
                    ),
                    .. back.To.Kind == HolderKind.Depot
                        ? [new MoveField("shelf", "Shelf it is put on", Required: false)]
                        : Array.Empty<MoveField>(),
                ],
                back.Serial
            );
            yield return asked.Entry(Move.BookIn, "The box is empty", new ReturnArrived(back.Serial, State: BoxState.Empty), back.Serial);
        }
    }

    /// <summary>It came for a swap and has nobody's data on it.</summary>
    private static bool IsUnusedPart(Ticket ticket, string serial) =>
        ticket.Parts.Concat(ticket.GivenUp).Any(p => p.Serial == serial) && !Target.HoldsCustomersData(ticket, serial);

    /// <summary>Its maker sends the new drive before this one is back.</summary>
    private static bool IsOwed(Ticket ticket, string serial) =>
        MakerAnswered.Standing(ticket, serial) is { Question: MakerQuestion.AdvanceExchange };

    /// <summary>What may be said in place of a reason, with the same things to fill in.</summary>
    private static FieldChoice[] Reasons(ReturnReason usual) =>
        usual switch
        {
            ReturnReason.BackUnopened or ReturnReason.BackOpened =>
            [
                new(Words.Of(ReturnReason.BackUnopened), "not needed, its box is sealed"),
                new(Words.Of(ReturnReason.BackOpened), "not needed, its box was opened"),
            ],
            ReturnReason.ExchangeUnderWarranty or ReturnReason.AdvanceExchange =>
            [
                new(Words.Of(ReturnReason.ExchangeUnderWarranty), "under warranty; a new drive comes when this one is there"),
                new(Words.Of(ReturnReason.AdvanceExchange), "under warranty; the new drive came first"),
            ],
            ReturnReason.BackToStores =>
            [
                new(Words.Of(ReturnReason.BackToStores), "back to stores"),
                new(Words.Of(ReturnReason.ToBeDestroyed), "we destroy it there"),
                new(Words.Of(ReturnReason.Evidence), "it is kept as it is, as evidence"),
            ],
            _ => [],
        };

    private static OfferedMove Opening(Offering asked, string serial, ReturnReason reason, HolderKind to)
    {
        var (maker, data) = (to == HolderKind.Maker, Target.HoldsCustomersData(asked.Ticket, serial));
        var given = maker ? MakerAnswered.Standing(asked.Ticket, serial) : null; // what the maker said when it was asked
        List<MoveField> fields =
        [
            new(
                "to.name",
                maker ? "Maker" : "Depot",
                Value: given?.Maker,
                Hint: maker ? asked.Known.WarrantyTold(asked.Ticket, serial, asked.Now) : null
            ),
        ];
        if (maker)
            fields.Add(new("authorisation", "Authorisation number", Value: given?.Authorisation));
        fields.Add(
            new("dueBy", "Has to be there by", FieldKind.Day, Required: false, Value: given?.DueBy is { } due ? Parcel.Day(due) : null)
        );
        if (maker)
            fields.Add(
                new(
                    "lateCost",
                    "What it costs when it is late",
                    Required: false,
                    Value: given?.LateCost,
                    Hint: "With its currency: 180.00 EUR."
                )
            );
        if (data)
            fields.Add(
                new(
                    "dataAgreedBy",
                    "Who agreed that the data on it may leave",
                    Required: asked.Ticket.Report?.DataAgreed is not Appliances.Owners.DataAgreement.MayLeave
                )
            );
        if (Reasons(reason) is { Length: > 1 } reasons)
            fields.Insert(0, new("reason", "Why", FieldKind.Choice, Value: Words.Of(reason), Choices: reasons));
        return asked.Entry(
            Move.OpenReturn,
            reason == ReturnReason.DeadOnArrival ? $"Dead on arrival, {(maker ? "to its maker" : "to stores")}"
                : maker ? "To its maker"
                : "To stores",
            new ReturnOpened(serial, reason, new(to, "")),
            new ReturnOpened(serial, reason, new(to, Some), Some, null, Some),
            fields,
            serial,
            Target.WhyStillNeeded(asked.Ticket, serial)
        );
    }
}
