using System.Reflection;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Extensions.Options;
using JsonOptions = Microsoft.AspNetCore.Http.Json.JsonOptions;

namespace Nailcrow.Service.Host.Answers;

/// <summary>
/// An answer tagged with what it says, so that one which has not changed need not be sent again. The tag is made of the answer
/// itself: whatever it was told from (a clock, a list, another ticket) cannot be forgotten.
/// </summary>
internal sealed class Tagged<T>(T value) : IResult, IEndpointMetadataProvider
{
    public async Task ExecuteAsync(HttpContext http)
    {
        var json = http.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        var said = JsonSerializer.SerializeToUtf8Bytes(value, json);
        var tag = $"\"{Convert.ToHexStringLower(SHA256.HashData(said).AsSpan(0, 12))}\"";
        http.Response.Headers.ETag = tag;
        if (http.Request.Headers.IfNoneMatch == tag)
        {
            http.Response.StatusCode = StatusCodes.Status304NotModified;
            return;
        }
        http.Response.ContentType = "application/json; charset=utf-8";
        http.Response.ContentLength = said.Length;
        await http.Response.Body.WriteAsync(said, http.RequestAborted);
    }

    public static void PopulateMetadata(MethodInfo method, EndpointBuilder builder) =>
        builder.Metadata.Add(new ProducesResponseTypeMetadata(StatusCodes.Status200OK, typeof(T), ["application/json"]));
}
