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
    private const string NoBody = "Send a body, as JSON; /api/openapi.json says what is in it.";

    /// <exception cref="BadHttpRequestException">It is no JSON, or not of this kind.</exception>
    public static async ValueTask<Sent<T>?> BindAsync(HttpContext http, ParameterInfo parameter)
    {
        if (http.Features.Get<IHttpRequestBodyDetectionFeature>() is { CanHaveBody: false })
            throw new BadHttpRequestException(NoBody);
        if (!http.Request.HasJsonContentType())
            throw new BadHttpRequestException("Send JSON, with Content-Type: application/json.", StatusCodes.Status415UnsupportedMediaType);
        try
        {
            return new(await http.Request.ReadFromJsonAsync<T>(http.RequestAborted) ?? throw new BadHttpRequestException(NoBody));
        }
        catch (JsonException e)
        {
            throw new BadHttpRequestException($"The body is not what {parameter.Name} has to be.", e);
        }
        catch (IOException e) when (e is not BadHttpRequestException)
        {
            throw new BadHttpRequestException("The body broke off.", e); // nobody is there any more to read it
        }
    }

    public static void PopulateMetadata(ParameterInfo parameter, EndpointBuilder builder) =>
        builder.Metadata.Add(new AcceptsMetadata(["application/json"], typeof(T)));
}
