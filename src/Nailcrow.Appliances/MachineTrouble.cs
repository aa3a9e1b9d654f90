using System.Text.Json;
using Nailcrow.Appliances.Redfish;
using Polly.CircuitBreaker;
using Polly.Timeout;

namespace Nailcrow.Appliances;

/// <summary>Every way a machine can fail to answer, as the end of a sentence.</summary>
internal static class MachineTrouble
{
    public static string? Sentence(Exception e, LinkSettings settings) =>
        e switch
        {
            TimeoutRejectedException => $"did not answer within {settings.CallDeadline.TotalSeconds:0} s.",
            OperationCanceledException => $"was not through after {settings.LookDeadline.TotalSeconds:0} s.",
            BrokenCircuitException => "has not been answering and is left alone for a moment.",
            RedfishException odd => $"answered something else than expected: {odd.Message}",
            JsonException => "answered something that is not JSON.",
            HttpRequestException { InnerException: ForbiddenAddressException no } => $"is not asked: {no.Message}",
            HttpRequestException { HttpRequestError: HttpRequestError.ConfigurationLimitExceeded } =>
                $"answered more than {settings.MostBytes / 1024 / 1024} MiB; that is no drive list.",
            HttpRequestException { StatusCode: { } status } => $"answered {(int)status} {status}.",
            HttpRequestException or IOException => "cannot be reached.",
            _ => null,
        };
}
