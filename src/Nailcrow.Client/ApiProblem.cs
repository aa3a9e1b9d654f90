using System.Net;

namespace Nailcrow.Client;

/// <summary>The service said no; <see cref="Exception.Message"/> is its own sentence.</summary>
/// <param name="type">Which refusal it is, for a program that goes on from it (<see cref="ProblemTypes"/>); null for most.</param>
public sealed class ApiProblem(HttpStatusCode status, string sentence, string? type = null) : Exception(sentence)
{
    public HttpStatusCode Status { get; } = status;

    public string? Type { get; } = type;
}
