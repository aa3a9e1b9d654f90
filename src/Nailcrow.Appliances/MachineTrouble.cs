using System.Text.Json;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Appliances.Redfish;
using Nailcrow.Core.Appliances;
using Polly.CircuitBreaker;
using Polly.Timeout;

namespace Nailcrow.Appliances;

/// <summary>Every way a machine can fail to answer, as the end of a sentence.</summary>
internal static class MachineTrouble
{
    public static string? Sentence(Exception e, LinkSettings settings, Appliance appliance, MachineKey key) =>
        e switch
        {
            TimeoutRejectedException => $"did not answer within {settings.CallDeadline.TotalSeconds:0} s.",
            OperationCanceledException => $"was not through after {settings.LookDeadline.TotalSeconds:0} s.",
            BrokenCircuitException => "has not been answering and is left alone for a moment.",
            RedfishException odd when key.Problem == odd.Message => odd.Message,
            RedfishException odd => $"answered something else than expected: {odd.Message}",
            JsonException => "answered something that is not JSON.",
            HttpRequestException { InnerException: ForbiddenAddressException no } => $"is not asked: {no.Message}",
            HttpRequestException { HttpRequestError: HttpRequestError.ConfigurationLimitExceeded } =>
                $"answered more than {settings.MostBytes / 1024 / 1024} MiB; that is no drive list.",
            HttpRequestException { StatusCode: System.Net.HttpStatusCode.Unauthorized } => key.Name is null
                ? $"asks who one is, and no sign-in is given for it: 'nailcrow appliance sign-in {appliance.Asset} NAME'."
                : $"does not let '{key.Name}' in: the name or the secret is not right (any more); "
                    + $"'nailcrow appliance sign-in {appliance.Asset} NAME' gives them anew.",
            HttpRequestException { StatusCode: System.Net.HttpStatusCode.Forbidden } =>
                $"does not show that to {(key.Name is null ? "just anybody" : $"'{key.Name}'")}: it takes one who may read its storage.",
            HttpRequestException { StatusCode: { } status } => $"answered {(int)status} {status}.",
            HttpRequestException { HttpRequestError: HttpRequestError.SecureConnectionError } =>
                "does not speak TLS there, or none that is still safe.",
            HttpRequestException or IOException => "cannot be reached.",
            _ => null,
        };
}
