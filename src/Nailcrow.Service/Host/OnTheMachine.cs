using System.Data.Common;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store;

namespace Nailcrow.Service.Host;

/// <summary>
/// What is done with the service's own program on the machine itself, as <c>nailcrow-service admit</c>: which settings were given, and how it
/// ends. What went well is told on the output, what did not on the error's.
/// </summary>
internal static class OnTheMachine
{
    public const int Done = 0,
        Refused = 1,
        Usage = 2;

    /// <summary>Those that the service would go by: of the file, over it those of the environment, and over both those among the words.</summary>
    public static ServiceSettings Settings(string[] words) =>
        ServiceSettings.Of(
            new ConfigurationBuilder()
                .SetBasePath(Directory.GetCurrentDirectory())
                .AddJsonFile("appsettings.json", optional: true)
                .AddEnvironmentVariables()
                .AddCommandLine(words)
                .Build()
        );

    /// <summary>The first of the words that is no setting: those are <c>--Nailcrow:X=VALUE</c>, or two words.</summary>
    public static string? NoSetting(string[] words)
    {
        for (var at = 0; at < words.Length; at += words[at].Contains('=') ? 1 : 2)
            if (
                !words[at].StartsWith("--Nailcrow:", StringComparison.OrdinalIgnoreCase)
                || (!words[at].Contains('=') && at + 1 == words.Length)
            )
                return words[at];
        return null;
    }

    public static int Say(string sentence, int code)
    {
        Console.Error.WriteLine(sentence);
        return code;
    }

    /// <summary>Runs a command; what keeps it from ending well and is no fault of ours is told in a sentence.</summary>
    public static async Task<int> RunAsync(Func<Task<int>> command)
    {
        try
        {
            return await command();
        }
        catch (Exception e) when (StorageTroubles.Trouble(e) is { } trouble)
        {
            return Say($"{trouble} Say the same again when that is mended.", Refused);
        }
        catch (Exception e) when (KeptFromStarting.Sentence(e) is { } sentence)
        {
            return Say(sentence, Refused);
        }
        catch (Exception e) when (StorageFaults.IsOfAnotherForm(e))
        {
            return Say(
                "That database is not of this version; start this version of the service once, which brings it up to date.",
                Refused
            );
        }
        catch (Exception e) when ((e as DbException ?? e.InnerException as DbException) is { } refused)
        {
            return Say(
                $"The database refuses what it was asked: {refused.Message.TrimEnd('.')}. That is a fault of ours: tell whoever you have this from, "
                    + "in these words.",
                Refused
            );
        }
    }
}
