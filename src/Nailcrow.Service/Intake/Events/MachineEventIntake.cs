using Nailcrow.Appliances;
using Nailcrow.Core.Intake;

namespace Nailcrow.Service.Intake.Events;

/// <summary>A machine's own events, as what comes in.</summary>
internal static class MachineEventIntake
{
    public static Incoming Of(string asset, MachineEvent said, DateTimeOffset now)
    {
        var id = SignedEvents.IdOf($"redfish {asset}", $"{said.Id} {said.At:O} {said.Text}");
        var alert = new Alert(
            id,
            "redfish",
            asset,
            said.At is { } at && (at - now).Duration() < TimeSpan.FromDays(30) ? at : now,
            EvidenceKind.Alert,
            said.Text,
            asset,
            Name: said.Drive,
            Array: said.Array
        );
        return new(id, now, "redfish", asset, said.Text, asset, said.IsBad ? alert : null);
    }
}
