using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Routing.Template;
using Nailcrow.Service.Host.Answers;

namespace Nailcrow.Service.Host;

/// <summary>What is told where nothing takes a call: that there is no such place, or what the one there is does take.</summary>
internal sealed class Unanswered(EndpointDataSource calls, ParameterPolicyFactory policies)
{
    public IResult Of(HttpContext http)
    {
        var path = http.Request.Path;
        var there = calls.Endpoints.OfType<RouteEndpoint>().Where(e => !IsForTheRest(e) && IsAt(e, http)).ToList();
        if (there.Count == 0)
            return Refusals.NotFound($"There is no {path} here; /api/openapi.json lists what there is.");
        // Whoever has not come in is told no more of it than by the place itself.
        if (http.User.Identity?.IsAuthenticated != true && there.TrueForAll(e => e.Metadata.GetMetadata<IAllowAnonymous>() is null))
            return TypedResults.Unauthorized();
        var methods = there.SelectMany(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods ?? []).Distinct().Order().ToList();
        if (!methods.Contains(http.Request.Method))
        {
            http.Response.Headers.Allow = string.Join(", ", methods);
            return TypedResults.Problem(
                $"{path} does not take {http.Request.Method}; accepted: {string.Join(", ", methods)}.",
                statusCode: StatusCodes.Status405MethodNotAllowed,
                title: "Not taken"
            );
        }
        var kinds = there
            .Where(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods.Contains(http.Request.Method) == true)
            .SelectMany(e => e.Metadata.GetMetadata<IAcceptsMetadata>()?.ContentTypes ?? [])
            .Distinct();
        return TypedResults.Problem(
            $"{path} takes {string.Join(" or ", kinds)}: say so with Content-Type.",
            statusCode: StatusCodes.Status415UnsupportedMediaType,
            title: "Not readable"
        );
    }

    /// <summary>It takes whatever no other does.</summary>
    private static bool IsForTheRest(RouteEndpoint endpoint) => endpoint.RoutePattern.Parameters.Any(p => p.IsCatchAll);

    /// <summary>Whether a path leads to it, its numbers and ids being such.</summary>
    private bool IsAt(RouteEndpoint endpoint, HttpContext http)
    {
        var (pattern, values) = (endpoint.RoutePattern, new RouteValueDictionary());
        return new TemplateMatcher(new RouteTemplate(pattern), []).TryMatch(http.Request.Path, values)
            && pattern.ParameterPolicies.All(of =>
                of.Value.All(policy =>
                    policies.Create(pattern.GetParameter(of.Key), policy) is not IRouteConstraint constraint
                    || constraint.Match(http, null, of.Key, values, RouteDirection.IncomingRequest)
                )
            );
    }
}
