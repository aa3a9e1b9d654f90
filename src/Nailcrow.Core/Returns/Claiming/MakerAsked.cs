using Nailcrow.Core.People;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Returns.Claiming;

/// <summary>A drive's maker is asked about its warranty, or for a number to send it back under. The service asks, and writes down the answer.</summary>
/// <param name="Fault">What is wrong with it, in the words the maker gets; null for what the ticket reports.</param>
public sealed record MakerAsked(string Serial, string Maker, MakerQuestion Question, string? Fault = null) : DecisionBody
{
    public override string Told() =>
        Question == MakerQuestion.Warranty
            ? $"{Maker} asked whether {Serial} is under warranty"
            : $"{Maker} asked to take {Serial} back, {Words.Of(Question).Replace('-', ' ')}";

    public override string? Problem(Ticket ticket) =>
        HandedOn.Problem(Serial) is { } no ? no
        : string.IsNullOrWhiteSpace(Maker) ? "Say which maker is asked."
        : null;

    public override string? Refusal(Ticket ticket, Actor actor, DateTimeOffset now) =>
        ticket.Claims.Find(c => c.Serial == SerialNumber.Normalise(Serial) && c.AnsweredAt is null && c.Question == Question) is { } open
            ? $"{open.Stand(DateOnly.FromDateTime(now.UtcDateTime))}; 'outbox list' says how often it was tried."
            : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket with
        {
            Claims = ticket.Claims.Add(
                new(stamp.Entry, SerialNumber.Normalise(Serial), Maker, Question, stamp.At, stamp.By) { Fault = Fault }
            ),
        };
}
