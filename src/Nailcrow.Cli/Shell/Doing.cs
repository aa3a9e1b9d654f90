using System.CommandLine;
using System.Net;
using System.Text.Json;
using Nailcrow.Cli.Shell.Telling;
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
                catch (Exception wrong)
                {
                    var (code, sentence) = Told(wrong, call);
                    call.Screen.Error(sentence);
                    return (int)code;
                }
            }
        );
        return command;
    }

    private static (ExitCode, string) Told(Exception wrong, Call call) =>
        wrong switch
        {
            _ when Silence.IsOnTheWay(wrong) => (
                ExitCode.NotReachable,
                $"{call.Service} was asked, and the answer was lost on the way. What you sent may have been kept; look before you send it again."
            ),
            ApiProblem { Status: HttpStatusCode.Unauthorized } when call.ActedAs is { } name => (
                ExitCode.NotAllowed,
                $"{name} is not signed in any longer; 'nailcrow sign-in {name}' does that."
            ),
            ApiProblem { Status: HttpStatusCode.Unauthorized } when call.WithKey => (
                ExitCode.NotAllowed,
                "The key in NAILCROW_KEY opens nothing: it was ended, has run out, or is not whole. 'nailcrow key make' makes another."
            ),
            ApiProblem no => (Code(no.Status), no.Message),
            NotSignedIn => (ExitCode.NotAllowed, wrong.Message),
            Refusal => (ExitCode.Refused, wrong.Message),
            UsageProblem => (ExitCode.Usage, wrong.Message),
            HttpRequestException => (
                ExitCode.NotReachable,
                $"Nothing answers at {call.Service}. Is the service running there? --service says another place."
            ),
            OperationCanceledException when !call.Ct.IsCancellationRequested => (
                ExitCode.NotReachable,
                $"{call.Service} did not answer in time. What you sent may have been kept; look before you send it again."
            ),
            OperationCanceledException => (ExitCode.Refused, "Left. What was kept before is kept."),
            JsonException => (
                ExitCode.NotReachable,
                $"What answers at {call.Service} does not answer as this Nailcrow does: something stands between, or "
                    + "it is of another version. 'nailcrow --version' tells yours."
            ),
            IOException or UnauthorizedAccessException => (ExitCode.Usage, wrong.Message),
            _ => (ExitCode.Refused, Unforeseen(wrong)),
        };

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
}
