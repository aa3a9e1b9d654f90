namespace Nailcrow.Store.OnFile;

/// <summary>Files that nobody but the service's own user may read: the database, its copies, its keys.</summary>
public static class OwnFiles
{
    public const UnixFileMode Mode = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    /// <summary>Writes a file whole or not at all: under another name first, on disk before it takes its own.</summary>
    public static void Write(string file, string text)
    {
        var draft = $"{file}.part";
        using (var stream = new FileStream(draft, ToWrite(FileMode.Create)))
        using (var writer = new StreamWriter(stream))
        {
            writer.Write(text);
            writer.Flush();
            stream.Flush(flushToDisk: true);
        }
        File.Move(draft, file, overwrite: true);
    }

    /// <summary>A file that is there already, or is to be made by somebody who does not ask for a mode.</summary>
    public static void Keep(string file)
    {
        if (OperatingSystem.IsWindows())
            return;
        if (!File.Exists(file))
            using (new FileStream(file, ToWrite(FileMode.CreateNew)))
                return;
        File.SetUnixFileMode(file, Mode);
    }

    /// <summary>A folder that only the service's user may look into.</summary>
    public static void Folder(string? folder)
    {
        if (string.IsNullOrEmpty(folder) || Directory.Exists(folder))
            return;
        if (OperatingSystem.IsWindows())
            Directory.CreateDirectory(folder);
        else
            Directory.CreateDirectory(folder, Mode | UnixFileMode.UserExecute);
    }

    /// <summary>A folder that holds nothing but secrets; what an earlier release let others read is shut.</summary>
    public static void SecretFolder(string folder)
    {
        Folder(folder);
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(folder, Mode | UnixFileMode.UserExecute);
    }

    public static FileStreamOptions ToWrite(FileMode mode)
    {
        var options = new FileStreamOptions { Mode = mode, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            options.UnixCreateMode = Mode;
        return options;
    }
}
