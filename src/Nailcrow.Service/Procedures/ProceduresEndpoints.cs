using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client.Procedures;
using Nailcrow.Service.Host;

namespace Nailcrow.Service.Procedures;

internal static class ProceduresEndpoints
{
    public static void AddProcedures(this WebApplicationBuilder builder, ServiceSettings settings) =>
        builder.Services.AddSingleton(new ProcedureLibrary(settings));

    public static void MapProcedures(this WebApplication app) =>
        app.MapGet("/api/procedures", List).WithTags("Procedures").WithName("ListProcedures");

    internal static Ok<ProcedureList> List(ProcedureLibrary library) => TypedResults.Ok(new ProcedureList(library.Views));
}
