using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Terms;
using static Nailcrow.Core.Tickets.Moves.Offering;

namespace Nailcrow.Core.Tickets.Moves;

/// <summary>What carriers and makers are asked. Where the service knows none it can ask, nothing of it is offered.</summary>
internal static class AskedOutside
{
    public static IEnumerable<OfferedMove> Of(Offering asked) => [.. Carriers(asked), .. Makers(asked), .. Mail(asked)];

    /// <summary>All drives for one place that are not on their way yet go into one box.</summary>
    private static IEnumerable<OfferedMove> Carriers(Offering asked)
    {
        var ticket = asked.Ticket;
        if (Choices(asked, PartnerKind.Carrier) is not { Count: > 0 } carriers)
            yield break;
        foreach (
            var box in ticket
                .Returns.Where(r =>
                    r.SentAt is null && r.ArrivedAt is null && !ticket.Parcels.Exists(p => p.Stands && p.Serials.Contains(r.Serial))
                )
                .GroupBy(r => r.To with { Shelf = null })
        )
        {
            var serials = box.Select(r => r.Serial).ToList();
            yield return asked.Entry(
                Move.AskCarrier,
                serials.Count == 1 ? "Have a carrier fetch it" : $"Have a carrier fetch all {serials.Count} in one box",
                new CarrierAsked(serials, ""),
                new CarrierAsked(serials, Some),
                [
                    new("carrier", "Carrier", FieldKind.Choice, Value: carriers[0].Value, Choices: carriers),
                    new("collectOn", "Day they should come", FieldKind.Day, Required: false),
                ],
                serials[0]
            );
        }
    }

    private static IEnumerable<OfferedMove> Makers(Offering asked)
    {
        var ticket = asked.Ticket;
        if (Choices(asked, PartnerKind.Maker) is not { Count: > 0 } makers)
            yield break;
        foreach (var serial in Target.Defective(ticket))
            yield return asked.Entry(
                Move.AskMaker,
                "Ask its maker",
                new MakerAsked(serial, "", MakerQuestion.Warranty),
                new MakerAsked(serial, Some, MakerQuestion.Warranty, Some),
                [
                    new("maker", "Maker", FieldKind.Choice, Value: makers[0].Value, Choices: makers),
                    new(
                        "question",
                        "What for",
                        FieldKind.Choice,
                        Value: Words.Of(MakerQuestion.Warranty),
                        Choices:
                        [
                            new(Words.Of(MakerQuestion.Warranty), "whether it is under warranty"),
                            new(Words.Of(MakerQuestion.AdvanceExchange), "a number; the new drive comes first"),
                            new(Words.Of(MakerQuestion.ReturnFirst), "a number; the new drive comes when this one is there"),
                        ]
                    ),
                    Sentence("fault", "What is wrong with it") with
                    {
                        Required = false,
                        Hint = "Nothing, for what the ticket reports.",
                    },
                ],
                serial
            );
    }

    /// <summary>Which papers there are, and which of a kind, is on the list of papers; where nothing carries mail, none is sent.</summary>
    private static IEnumerable<OfferedMove> Mail(Offering asked)
    {
        if (Choices(asked, PartnerKind.Mail).Count == 0)
            yield break;
        yield return asked.Entry(
            Move.MailPaper,
            "Send by mail",
            new PaperMailed(PaperKind.ServiceReport, ""),
            new PaperMailed(PaperKind.ServiceReport, "name@place.example", Some, Some),
            [
                new(
                    "paper",
                    "Which paper",
                    FieldKind.Choice,
                    Value: Words.Of(PaperKind.ServiceReport),
                    Choices: [.. Enum.GetValues<PaperKind>().Select(k => new FieldChoice(Words.Of(k), Words.Of(k).Replace('-', ' ')))]
                ),
                new("about", "Which of its kind", Required: false, Hint: "A serial, or whom the box goes to, where there are several."),
                new("to", "To", Hint: "One address: name@place.example."),
                new("says", "What you say with it", FieldKind.Lines, Required: false, Most: 4_000),
            ]
        );
    }

    private static List<FieldChoice> Choices(Offering asked, PartnerKind kind) =>
        [.. (asked.Known.Partners ?? []).Where(p => p.Kind == kind).Select(p => new FieldChoice(p.Name, p.Name))];
}
