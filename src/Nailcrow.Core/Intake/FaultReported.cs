using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Core.Intake;

[JsonConverter(typeof(KebabEnum<JobKind>))]
public enum JobKind
{
    Fault,
    Early,

    /// <summary>Nothing is wrong: bigger drives go in, one by one.</summary>
    Growth,

    /// <summary>Nothing is wrong and nothing comes out: a further drive goes into an empty bay and stands by.</summary>
    Addition,
}

/// <summary>A fault arrives and becomes a ticket. Always the first entry; names the appliance as it was known then.</summary>
/// <param name="Asset">The appliance's asset number.</param>
/// <param name="ChassisSerial">The appliance's own serial, to recognise the machine by.</param>
/// <param name="Arrays">How its arrays were set up, so that what no swap can help is said before anybody travels.</param>
/// <param name="Array">The array a drive is added for; null where nobody said, or where a drive of it tells.</param>
/// <param name="DataAgreed">What was agreed then about drives with the customer's data on them; null where they are asked each time.</param>
/// <param name="SeenOn">The ticket on which a look at the machine showed it; null where somebody reported it.</param>
public sealed record FaultReported(
    string Asset,
    string ChassisSerial,
    string Model,
    string Customer,
    string Site,
    string Location,
    JobKind Job,
    string Symptom,
    string? Bay = null,
    string? Serial = null,
    DateTimeOffset? Since = null,
    IReadOnlyList<ArrayDesign>? Arrays = null,
    Promise? Promise = null,
    long? SeenOn = null,
    string? Array = null,
    DataAgreement? DataAgreed = null
) : FactBody
{
    /// <summary>Whose machine it is, where, and which: how a paper for the customer begins.</summary>
    public IReadOnlyList<string> Heading() => [$"{Customer}, {Site}: {Location}", $"{Asset}, {Model}, chassis {ChassisSerial}"];

    public override string Told() => $"Reported: {Symptom.TrimEnd('.')}{EntryTold.At(Bay, Serial)}";

    /// <summary>Stands where a report says nothing that can be read.</summary>
    public const string NotReadable = "not readable";

    public static readonly FaultReported Lost = new(
        NotReadable,
        NotReadable,
        NotReadable,
        NotReadable,
        NotReadable,
        NotReadable,
        JobKind.Fault,
        "The report of this ticket is missing."
    );

    public override string? Problem(Ticket ticket) =>
        ticket.Report is not null ? $"{TicketNumber.Text(ticket.Number)} already has its report; add what is new as evidence."
        : string.IsNullOrWhiteSpace(Symptom) ? "Say what was seen; 'amber lamp on bay 7' is enough."
        : Serial is not null && SerialNumber.Parse(Serial) is Parsed<SerialNumber>.Refused no ? no.Reason
        : null;

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        ticket.Report is not null
            ? ticket.Raise(stamp, "report", "The ticket was reported twice.")
            : ticket with
            {
                Report = this,
                ReceivedAt = stamp.At,
            };
}
