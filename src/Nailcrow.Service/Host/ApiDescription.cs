using Microsoft.AspNetCore.OpenApi;

namespace Nailcrow.Service.Host;

/// <summary>The head of the interface's OpenAPI 3.1 document.</summary>
internal static class ApiDescription
{
    public static void AddNailcrowDescription(this OpenApiOptions api)
    {
        api.OpenApiVersion = Microsoft.OpenApi.OpenApiSpecVersion.OpenApi3_1;
        api.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Nailcrow";
            document.Info.Version = "1";
            document.Info.Description = "Swapping failed drives: tickets, run sheets, rebuilds and returns. docs/interface.md tells how it is meant to be used.";
            document.Servers?.Clear();
            return Task.CompletedTask;
        });
    }
}
