using System.Net;

namespace Nailcrow.Client;

/// <summary>The service said no; <see cref="Exception.Message"/> is its own sentence.</summary>
public sealed class ApiProblem(HttpStatusCode status, string sentence) : Exception(sentence)
{
    public HttpStatusCode Status { get; } = status;
}
