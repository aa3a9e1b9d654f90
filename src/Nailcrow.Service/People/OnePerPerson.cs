using System.Collections.Concurrent;

namespace Nailcrow.Service.People;

/// <summary>What costs much is done once at a time by each person, however many windows they have open.</summary>
internal static class OnePerPerson
{
    public static TBuilder OneEach<TBuilder>(this TBuilder endpoint)
        where TBuilder : IEndpointConventionBuilder
    {
        var busy = new ConcurrentDictionary<string, byte>();
        endpoint.AddEndpointFilter(
            async (call, next) =>
            {
                var name = call.HttpContext.User.Identity?.Name ?? "";
                if (!busy.TryAdd(name, 0))
                    return TypedResults.Problem(
                        "The one you asked for before this is still being worked on; wait for its answer.",
                        statusCode: 429,
                        title: "One at a time"
                    );
                try
                {
                    return await next(call);
                }
                finally
                {
                    busy.TryRemove(name, out _);
                }
            }
        );
        return endpoint;
    }
}
