using System.Net;

namespace Nailcrow.Client;

/// <summary>The service said no; <see cref="Exception.Message"/> is its own sentence.</summary>
/// <param name="type">Which refusal it is, for a program that goes on from it (<see cref="ProblemTypes"/>); null for most.</param>
public sealed class ApiProblem(HttpStatusCode status, string sentence, string? type = null) : Exception(sentence)
{
    public HttpStatusCode Status { get; } = status;

    public string? Type { get; } = type;

    /// <summary>It is a proxy's word that the service behind it did not answer; what was sent may have been kept.</summary>
    public bool IsFromBetween { get; private init; }

    /// <summary>An answer with nothing in it that the service would say: the service always says why.</summary>
    internal static ApiProblem WithoutSentence(HttpStatusCode status) =>
        Silence.IsToldBy(status)
            ? new(status, $"What stands before the service says that it does not answer ({(int)status}).") { IsFromBetween = true }
            : new(status, $"The service answered {(int)status} and no more.");
}
