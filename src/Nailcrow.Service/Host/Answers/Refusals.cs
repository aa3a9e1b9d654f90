using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Core.Tickets;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Service.Host.Answers;

/// <summary>Ways to say no, as RFC 9457 problem details whose detail says what to do.</summary>
internal static class Refusals
{
    public static ProblemHttpResult NotFound(string detail) => TypedResults.Problem(detail, statusCode: 404, title: "Not found");

    public static ProblemHttpResult Unusable(string detail) => TypedResults.Problem(detail, statusCode: 422, title: "Not usable");

    public static ProblemHttpResult Refused(string detail) => TypedResults.Problem(detail, statusCode: 409, title: "Refused");

    public static ProblemHttpResult NotAllowed(string detail) => TypedResults.Problem(detail, statusCode: 403, title: "Not allowed");

    /// <summary>The machine, not the caller, is why.</summary>
    public static ProblemHttpResult Unreachable(string detail) =>
        TypedResults.Problem(detail, statusCode: 502, title: "Machine not reached");

    public static ProblemHttpResult NoTicket(long number) => NotFound($"{TicketNumber.Text(number)} does not exist.");

    public static ProblemHttpResult Of(Written declined) =>
        declined switch
        {
            Written.IdTaken(var reason) => Refused(reason),
            Written.Declined(Ruling.Unusable(var reason)) => Unusable(reason),
            Written.Declined(Ruling.Refused(var reason)) => Refused(reason),
            Written.Declined(Ruling.NotAllowed(var reason)) => NotAllowed(reason),
            Written.Overtaken(var by) => Refused(
                $"{TicketNumber.Text(by)} was opened on the same machine at the same moment; look at it first."
            ),
            _ => throw new System.Diagnostics.UnreachableException($"{declined} is no refusal."),
        };
}
