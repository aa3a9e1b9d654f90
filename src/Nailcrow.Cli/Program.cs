using System.CommandLine;
using System.CommandLine.Invocation;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Cli.Shell.Typing;

// Asked for by scripts at every start, so it is answered before anything is built.
if (args is ["--version"])
{
    Console.WriteLine(ThisVersion.Text);
    return (int)ExitCode.Done;
}
InvocationConfiguration into = new()
{
    Output = new OneDoor(Console.Out),
    Error = new OneDoor(Console.Error),
    EnableDefaultExceptionHandler = false,
};
var screen = Screen.To(into.Output, into.Error, args.Contains("--json"));
try
{
    var root = Tour.Build();
    var parsed = root.Parse(args.Length == 0 ? ["--help"] : args);
    return parsed.Action is ParseErrorAction ? Mistyped.Tell(parsed, screen) : await parsed.InvokeAsync(into);
}
catch (Exception e)
{
    screen.Error(Doing.Unforeseen(e));
    return (int)ExitCode.Refused;
}
