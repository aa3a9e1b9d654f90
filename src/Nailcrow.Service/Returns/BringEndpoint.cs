using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Returns;

internal static class BringEndpoint
{
    public static void MapBring(this WebApplication app) =>
        app.MapGet("/api/tickets/{number:long}/bring", Bring).WithTags("Tickets").WithName("WhatToBring");

    /// <summary>Which parts in stock fit, what the array then holds, and what tools to have along.</summary>
    internal static async Task<Results<Ok<BringView>, ProblemHttpResult>> Bring(
        long number,
        TicketJournal journal,
        Fitting fitting,
        CancellationToken ct,
        string? plan = null
    )
    {
        if (await journal.ReadAsync(number, ct) is not { } record)
            return Refusals.NoTicket(number);
        if (await fitting.BringAsync(record.Ticket, ct) is not { } bring)
            return Refusals.NotFound($"{record.Ticket.Report?.Asset} is not known any more, so nothing can be said of what fits it.");
        return plan is null
            ? TypedResults.Ok(bring)
            : Bringing.Planned(record.Ticket, plan) switch
            {
                Parsed<Upgrade>.Ok(var reckoned) => TypedResults.Ok(bring with { Plan = reckoned }),
                Parsed<Upgrade>.Refused(var reason) => Refusals.Unusable(reason),
                _ => throw new System.Diagnostics.UnreachableException(),
            };
    }
}
