using Nailcrow.Core.People.Log;
using Nailcrow.Service.People.StayingIn;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People;

internal static class LoggedAs
{
    /// <summary>Whatever this does, once it has done it, is a line of the security log.</summary>
    /// <param name="about">Which part of the address says what it was done to; null where nothing does.</param>
    public static TBuilder Logged<TBuilder>(this TBuilder endpoint, SecurityEvent what, string? about = null)
        where TBuilder : IEndpointConventionBuilder
    {
        endpoint.AddEndpointFilter(
            async (call, next) =>
            {
                var answer = await next(call);
                var http = call.HttpContext;
                if (IsDone(answer))
                    await http
                        .RequestServices.GetRequiredService<SecurityLog>()
                        .WriteAsync(
                            http.Doer(),
                            what,
                            about is null ? null : http.Request.RouteValues[about]?.ToString(),
                            null,
                            CancellationToken.None
                        );
                return answer;
            }
        );
        return endpoint;
    }

    private static bool IsDone(object? answer) =>
        answer switch
        {
            INestedHttpResult { Result: var inner } => IsDone(inner),
            IStatusCodeHttpResult { StatusCode: >= 400 } => false,
            _ => true,
        };
}
