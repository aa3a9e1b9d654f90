using System.CommandLine;

namespace Nailcrow.Cli.Shell.Typing;

/// <summary>Scripts that let a shell ask the command itself what could come next.</summary>
internal static class CompletionCommand
{
    private static readonly IReadOnlyDictionary<string, string> Scripts = new Dictionary<string, string>
    {
        ["bash"] = """
            _nailcrow() {
              local word="${COMP_WORDS[COMP_CWORD]}"
              COMPREPLY=($(compgen -W "$(nailcrow "[suggest:$COMP_POINT]" "$COMP_LINE" 2>/dev/null)" -- "$word"))
            }
            complete -o default -F _nailcrow nailcrow
            """,
        ["zsh"] = """
            #compdef nailcrow
            _nailcrow() {
              local -a found
              found=("${(@f)$(nailcrow "[suggest:$CURSOR]" "$BUFFER" 2>/dev/null)}")
              compadd -a found
            }
            compdef _nailcrow nailcrow
            """,
        ["fish"] = """
            complete -f -c nailcrow -a '(nailcrow "[suggest:"(string length (commandline -cp))"]" (commandline -cp) 2>/dev/null)'
            """,
    };

    public static Command Build()
    {
        var shell = new Argument<string>("SHELL") { Description = "bash, zsh or fish." };
        shell.AcceptOnlyFromAmong([.. Scripts.Keys]);
        return new Command("completion", "Print the completion script of a shell: source <(nailcrow completion bash)") { shell }.Does(
            call =>
            {
                Console.Out.WriteLine(Scripts[call.Get(shell)]);
                return Task.CompletedTask;
            }
        );
    }
}
