using System.CommandLine;
using System.Net;
using Nailcrow.Client;

namespace Nailcrow.Cli.Shell;

internal static class Doing
{
    /// <summary>What a command does; every way it can go wrong becomes a sentence and an exit code here, in one place.</summary>
    public static Command Does(this Command command, Func<Call, Task> act)
    {
        command.SetAction(
            async (parsed, ct) =>
            {
                var call = new Call(parsed, ct);
                try
                {
                    await act(call);
                    return (int)ExitCode.Done;
                }
                catch (ApiProblem no) when (no.Status is HttpStatusCode.Unauthorized && call.ActedAs is { } name)
                {
                    return Say(call, ExitCode.NotAllowed, $"{name} is not signed in any longer; 'nailcrow sign-in {name}' does that.");
                }
                catch (ApiProblem no)
                {
                    return Say(call, Code(no.Status), no.Message);
                }
                catch (NotSignedIn no)
                {
                    return Say(call, ExitCode.NotAllowed, no.Message);
                }
                catch (Refusal no)
                {
                    return Say(call, ExitCode.Refused, no.Message);
                }
                catch (UsageProblem no)
                {
                    return Say(call, ExitCode.Usage, no.Message);
                }
                catch (HttpRequestException)
                {
                    return Say(
                        call,
                        ExitCode.NotReachable,
                        $"Nothing answers at {call.Service}. Is the service running there? --service says another place."
                    );
                }
                catch (OperationCanceledException) when (!ct.IsCancellationRequested)
                {
                    return Say(
                        call,
                        ExitCode.NotReachable,
                        $"{call.Service} did not answer in time. What you sent may have been kept; look before you send it again."
                    );
                }
                catch (Exception e) when (e is IOException or UnauthorizedAccessException)
                {
                    return Say(call, ExitCode.Usage, e.Message);
                }
            }
        );
        return command;
    }

    private static ExitCode Code(HttpStatusCode status) =>
        status switch
        {
            HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden => ExitCode.NotAllowed,
            HttpStatusCode.BadGateway or HttpStatusCode.ServiceUnavailable or HttpStatusCode.GatewayTimeout => ExitCode.NotReachable,
            _ => ExitCode.Refused,
        };

    private static int Say(Call call, ExitCode code, string sentence)
    {
        call.Screen.Error(sentence);
        return (int)code;
    }
}
