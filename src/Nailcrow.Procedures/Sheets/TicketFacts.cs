using Nailcrow.Core.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures.Conditions;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;

namespace Nailcrow.Procedures.Sheets;

/// <summary>What a procedure may ask of the ticket it is compiled for.</summary>
/// <param name="Drives">How many drives the ticket swaps.</param>
/// <param name="SpareTookOver">The array is whole without the drive that is to come out.</param>
/// <param name="Reached">The service reaches the machine by wire.</param>
/// <param name="Grows">A job of growth, or the part that is set aside gives the array more than it holds.</param>
public sealed record TicketFacts(
    JobKind Job,
    BayRole Role,
    DriveHealth Health,
    int Drives,
    SwapHelp Help,
    bool SpareTookOver,
    bool Reached,
    bool Grows = false
)
{
    public const string DrivesFact = "ticket.drives";

    public static readonly TicketFacts Ordinary = new(JobKind.Fault, BayRole.Dropped, DriveHealth.Faulted, 1, SwapHelp.Helps, false, true);

    public static readonly IReadOnlyDictionary<string, FactType> Facts = new Dictionary<string, FactType>
    {
        ["ticket.job"] = OneOf<JobKind>(),
        ["ticket.role"] = OneOf<BayRole>(),
        ["ticket.health"] = OneOf<DriveHealth>(),
        [DrivesFact] = new FactType.Number(Dimension.Count),
        ["ticket.help"] = OneOf<SwapHelp>(),
        ["ticket.spare-took-over"] = new FactType.OneOf(["yes", "no"]),
        ["ticket.reached"] = new FactType.OneOf(["yes", "no"]),
        ["ticket.grows"] = new FactType.OneOf(["yes", "no"]),
    };

    /// <summary>The fact's value; null where there is no such fact.</summary>
    public string? Of(string fact) =>
        fact switch
        {
            "ticket.job" => Words.Of(Job),
            "ticket.role" => Words.Of(Role),
            "ticket.health" => Words.Of(Health),
            DrivesFact => $"{Drives}",
            "ticket.help" => Words.Of(Help),
            "ticket.spare-took-over" => SpareTookOver ? "yes" : "no",
            "ticket.reached" => Reached ? "yes" : "no",
            "ticket.grows" => Grows ? "yes" : "no",
            _ => null,
        };

    private static FactType OneOf<T>()
        where T : struct, Enum => new FactType.OneOf([.. Enum.GetValues<T>().Select(Words.Of)]);
}
