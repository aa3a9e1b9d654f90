using System.Text.Json;
using Nailcrow.Core.Intake;

namespace Nailcrow.Core.Tickets.Journal.Reading;

/// <summary>
/// An entry that this version cannot read: of a kind it does not know, or not in any form it knows. It stands in its place,
/// changes nothing, and a lead has to say how it is to be taken before the ticket closes.
/// </summary>
/// <param name="Raw">The body as it was written.</param>
public sealed record Unreadable(string Kind, string Why, string Raw) : FactBody
{
    public override string Told() => $"Cannot be read by this version: {Why}";

    /// <summary>What its discrepancy is about.</summary>
    public const string About = "unreadable";

    public override string? Problem(Ticket ticket) => $"'{Kind}' cannot be read: {Why}";

    internal override Ticket Fold(Ticket ticket, Stamp stamp) =>
        (Kind == "fault-reported" && ticket.Report is null ? ticket with { Report = Salvaged(), ReceivedAt = stamp.At } : ticket).Raise(
            stamp,
            About,
            $"An entry of the kind '{Kind}' by {stamp.By} cannot be read by this version, and counts for nothing: {Why}"
        );

    /// <summary>A ticket has to be about some machine; what can still be made out of its report says which.</summary>
    private FaultReported Salvaged()
    {
        using var raw = Parsed();
        string Word(string name) =>
            raw?.RootElement is { ValueKind: JsonValueKind.Object } body
            && body.TryGetProperty(name, out var value)
            && value.ValueKind == JsonValueKind.String
                ? value.GetString() ?? ""
                : "";
        string Said(string name) => Word(name) is { Length: > 0 } said ? said : FaultReported.NotReadable;
        string? Perhaps(string name) => Word(name) is { Length: > 0 } said ? said : null;
        return new(
            Said("asset"),
            Said("chassisSerial"),
            Said("model"),
            Said("customer"),
            Said("site"),
            Said("location"),
            JobKind.Fault,
            Said("symptom"),
            Perhaps("bay"),
            Perhaps("serial")
        );
    }

    private JsonDocument? Parsed()
    {
        try
        {
            return JsonDocument.Parse(Raw);
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
