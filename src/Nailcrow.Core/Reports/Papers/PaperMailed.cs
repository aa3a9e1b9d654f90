using Nailcrow.Core.People;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>A paper of this ticket is to go out by mail. The service sends it, as it is then, and writes down what came of it.</summary>
/// <param name="About">Which of its kind, as the list of papers says; null where there is one of its kind.</param>
/// <param name="To">One address, as "name@place.example".</param>
/// <param name="Says">What whoever sends it says with it.</param>
public sealed record PaperMailed(PaperKind Paper, string To, string? About = null, string? Says = null) : DecisionBody
{
    public override string Told() => $"{Words.Capital(Called())} sent to {To} by mail";

    public override string? Problem(Ticket ticket) => Mailbox.IsOne(To) ? null : Mailbox.WhyNot(To);

    /// <summary>Whether there is such a paper is ruled by the record (<see cref="TicketPapers.WhyNot"/>).</summary>
    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) => null;

    /// <summary>What a customer wants to read, they want when the work is over as well.</summary>
    public override bool MayFollowTheEnd() => true;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Letters = ticket.Letters.Add(new(stamp.Entry, To.Trim(), $"the {Called()}", stamp.At, stamp.By)),
        };

    /// <summary>"return label P8BA0071", as it goes on after "the".</summary>
    public string Called() => Words.Of(Paper).Replace('-', ' ') + (string.IsNullOrWhiteSpace(About) ? "" : $" {About.Trim()}");
}
