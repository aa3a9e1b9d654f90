using Microsoft.AspNetCore.OpenApi;

namespace Nailcrow.Service.Host.Answers;

/// <summary>The head of the interface's OpenAPI 3.1 document.</summary>
internal static class ApiDescription
{
    public static void AddNailcrowDescription(this OpenApiOptions api)
    {
        api.OpenApiVersion = Microsoft.OpenApi.OpenApiSpecVersion.OpenApi3_1;
        // What is computed from other fields is not written, so the document does not promise it.
        api.AddSchemaTransformer(
            (schema, context, _) =>
            {
                foreach (var computed in context.JsonTypeInfo.Properties.Where(p => p is { Set: null, AssociatedParameter: null }))
                    schema.Properties?.Remove(computed.Name);
                return Task.CompletedTask;
            }
        );
        api.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info.Title = "Nailcrow";
                document.Info.Version = "1";
                document.Info.Description =
                    "Swapping failed drives: tickets, run sheets, rebuilds and returns. docs/interface.md tells how it is meant to be used.";
                document.Servers?.Clear();
                return Task.CompletedTask;
            }
        );
    }
}
