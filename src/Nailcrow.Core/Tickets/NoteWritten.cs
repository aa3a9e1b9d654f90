using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets;

public sealed record NoteWritten(string Text) : FactBody
{
    public override string Told() => $"Note: {Text}";

    public override string? Problem(Ticket ticket) => string.IsNullOrWhiteSpace(Text) ? "A note has words in it." : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket;
}
