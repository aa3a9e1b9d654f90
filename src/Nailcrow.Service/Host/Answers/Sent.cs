using System.Reflection;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.Metadata;

namespace Nailcrow.Service.Host.Answers;

/// <summary>
/// A message whose parts are so many that describing them takes a third of a start: that is done when the first one comes, or in the calm
/// after the start, and not before the service can answer anybody. Read and refused as every other body is.
/// </summary>
internal sealed record Sent<T>(T Message) : IEndpointParameterMetadataProvider
    where T : class
{
    /// <exception cref="BadHttpRequestException">It is no JSON, or not of this kind.</exception>
    public static async ValueTask<Sent<T>?> BindAsync(HttpContext http, ParameterInfo parameter)
    {
        if (http.Features.Get<IHttpRequestBodyDetectionFeature>() is { CanHaveBody: false })
            throw new BadHttpRequestException($"Implicit body inferred for parameter \"{parameter.Name}\" but no body was provided.");
        if (!http.Request.HasJsonContentType())
            throw new BadHttpRequestException("Expected a JSON body.", StatusCodes.Status415UnsupportedMediaType);
        try
        {
            return await http.Request.ReadFromJsonAsync<T>(http.RequestAborted) is { } message
                ? new(message)
                : throw new BadHttpRequestException($"Implicit body inferred for parameter \"{parameter.Name}\" but no body was provided.");
        }
        catch (JsonException e)
        {
            throw new BadHttpRequestException($"\"{parameter.Name}\" could not be read from the body.", e);
        }
    }

    public static void PopulateMetadata(ParameterInfo parameter, EndpointBuilder builder) =>
        builder.Metadata.Add(new AcceptsMetadata(["application/json"], typeof(T)));
}
