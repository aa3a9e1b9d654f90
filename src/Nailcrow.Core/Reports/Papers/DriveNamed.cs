using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>What a drive is, by what a ticket knows of it.</summary>
internal static class DriveNamed
{
    public static string On(Ticket ticket, string serial) =>
        ticket.Parts.Find(p => p.Serial == serial) is { } part ? Text(part.Model, part.Bytes)
        : Target.LastSeen(ticket, serial) is { } bay ? Text(bay.Model, bay.Bytes)
        : "model not known";

    private static string Text(string? model, long? bytes) =>
        string.Join(", ", new[] { model ?? "model not known", bytes is { } known and > 0 ? ByteSize.Both(known) : null }.OfType<string>());
}
