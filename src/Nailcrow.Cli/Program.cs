using Nailcrow.Cli.Shell;

// Asked for by scripts at every start, so it is answered before anything is built.
if (args is ["--version"])
{
    Console.WriteLine(ThisVersion.Text);
    return (int)ExitCode.Done;
}
var parsed = Tour.Build().Parse(args);
var code = await parsed.InvokeAsync();
return parsed.Action is System.CommandLine.Invocation.ParseErrorAction ? (int)ExitCode.Usage : code;
