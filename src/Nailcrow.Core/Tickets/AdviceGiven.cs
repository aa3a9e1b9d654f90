using Nailcrow.Core.People;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tickets;

/// <summary>Something the customer should do that is not this ticket's work: a spare, a backup, another drive before it fails, a new machine.</summary>
/// <param name="Decision">What the customer decided, and who of them; null while that is open.</param>
public sealed record AdviceGiven(string Text, string? Decision = null) : FactBody
{
    public override string Told() => $"Advised: {Text.TrimEnd('.')}.{(Decision is { } decided ? $" Decided: {decided}" : "")}";

    public override IReadOnlyCollection<Role> Writers() => [Role.Engineer, Role.Dispatcher, Role.Lead];

    public override string? Problem(Ticket ticket) => string.IsNullOrWhiteSpace(Text) ? "Say what is advised." : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) => ticket with { Advice = [.. ticket.Advice.Where(a => !IsSame(a)), this] };

    /// <summary>What was advised before, and is decided now, is one advice.</summary>
    private bool IsSame(AdviceGiven other) =>
        string.Equals(other.Text.Trim().TrimEnd('.'), Text.Trim().TrimEnd('.'), StringComparison.OrdinalIgnoreCase);
}
