using Nailcrow.Core.Returns;

namespace Nailcrow.Core.Tickets.Telling;

/// <summary>A drive that moved, and who holds it now.</summary>
/// <param name="What">What it is on this ticket: "came out", "went in", "replacement", "given up"; empty where none of them.</param>
/// <param name="MayKeep">False while it is on the way: the ticket does not close before somebody has it who may keep it.</param>
public sealed record HeldDrive(string Serial, Holder Holder, bool MayKeep, string What)
{
    internal static IReadOnlyList<HeldDrive> Of(Ticket ticket) =>
        [.. ticket.Custody.Now.Select(held => new HeldDrive(held.Serial, held.Holder, held.Holder.MayKeep, WhatOf(ticket, held.Serial)))];

    private static string WhatOf(Ticket ticket, string serial) =>
        ticket.Swaps.Any(s => s.OutSerial == serial) ? "came out"
        : ticket.Swaps.Any(s => s.InSerial == serial) ? "went in"
        : ticket.Parts.Exists(p => p.Serial == serial && p.GivenUp is null) ? "replacement"
        : ticket.GivenUp.Exists(p => p.Serial == serial) ? "given up"
        : "";
}
