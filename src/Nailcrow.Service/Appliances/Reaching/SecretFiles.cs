using Nailcrow.Appliances;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.Appliances.Reaching;

/// <summary>
/// Secrets of machines in files, one each, in the folder that whoever runs the service named: what else lies on the machine is
/// nobody's to send.
/// </summary>
internal sealed class SecretFiles(LinkSettings settings)
{
    private const int MostBytes = 1_000;

    /// <summary>Why a file cannot be meant by a name; null where it can.</summary>
    public string? Problem(string file) =>
        settings.SecretFiles is null ? "No folder for secrets is set; whoever runs the service names one (Nailcrow:Link:SecretFiles)."
        : file != Path.GetFileName(file) || file is "" or "." or ".." || file.Any(char.IsControl)
            ? $"'{Visible.Text(file)}' is no file in the folder for secrets; name it without a path."
        : Read(file) is null ? $"The folder for secrets has no file '{file}' that can be read, with up to {MostBytes} bytes."
        : null;

    /// <returns>Its first line; null where it cannot be read or is empty.</returns>
    public string? Read(string file)
    {
        try
        {
            var path = Path.Combine(settings.SecretFiles ?? "", Path.GetFileName(file));
            return settings.SecretFiles is null || new FileInfo(path).Length > MostBytes ? null
                : File.ReadLines(path).FirstOrDefault() is { Length: > 0 } secret ? secret
                : null;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }
}
