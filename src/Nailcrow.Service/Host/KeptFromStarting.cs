using Microsoft.AspNetCore.Connections;
using Microsoft.Extensions.Options;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store;
using Nailcrow.Store.Moving;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;

namespace Nailcrow.Service.Host;

/// <summary>What keeps the service from starting and is no fault of ours, in plain words: a setting, the storage, a port that is taken.</summary>
internal static class KeptFromStarting
{
    public static string? Sentence(Exception exception) =>
        exception switch
        {
            OptionsValidationException wrong => string.Join(Environment.NewLine, wrong.Failures),
            InvalidDataException { InnerException: FormatException why } file =>
                $"{file.Message} {why.Message} {why.InnerException?.Message}".TrimEnd(),
            RecordElsewhereException or OtherReleaseException or FileInUseException => exception.Message,
            IOException { InnerException: AddressInUseException } taken => taken.Message,
            _ => StorageTroubles.AtTheStart(exception),
        };
}
