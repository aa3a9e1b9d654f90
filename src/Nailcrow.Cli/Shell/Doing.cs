using System.CommandLine;
using System.Net;
using System.Text.Json;
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
                catch (OperationCanceledException)
                {
                    return Say(call, ExitCode.Refused, "Left. What was kept before is kept.");
                }
                catch (JsonException)
                {
                    return Say(
                        call,
                        ExitCode.NotReachable,
                        $"What answers at {call.Service} does not answer as this Nailcrow does: something stands between, or it is of another version. 'nailcrow --version' tells yours."
                    );
                }
                catch (Exception e) when (e is IOException or UnauthorizedAccessException)
                {
                    return Say(call, ExitCode.Usage, e.Message);
                }
                catch (Exception e)
                {
                    return Say(call, ExitCode.Refused, Unforeseen(e));
                }
            }
        );
        return command;
    }

    /// <summary>A mistake of ours: told so that it can be reported, in one line.</summary>
    public static string Unforeseen(Exception e) =>
        $"That was not foreseen, and is a mistake of Nailcrow's: {e.Message} What was kept before is kept.";

    private static ExitCode Code(HttpStatusCode status) =>
        status switch
        {
            HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden => ExitCode.NotAllowed,
            HttpStatusCode.OK or HttpStatusCode.BadGateway or HttpStatusCode.ServiceUnavailable or HttpStatusCode.GatewayTimeout =>
                ExitCode.NotReachable,
            _ => ExitCode.Refused,
        };

    private static int Say(Call call, ExitCode code, string sentence)
    {
        call.Screen.Error(sentence);
        return (int)code;
    }
}
