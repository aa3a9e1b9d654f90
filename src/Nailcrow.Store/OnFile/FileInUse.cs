namespace Nailcrow.Store.OnFile;

/// <summary>
/// That a process works on a database's file: held as long as it does, and let go of by the system where it is killed. SQLite lets several
/// in; the rounds of two services would each do what is to be done once.
/// </summary>
public sealed class FileInUse : IDisposable
{
    // errno of Linux for a lock that another has: EAGAIN.
    private const int AnotherHas = 11;

    private readonly FileStream? _lock;

    private FileInUse(FileStream? held) => _lock = held;

    /// <exception cref="FileInUseException">Another process, or another service of this one, works on it.</exception>
    public static FileInUse Hold(string file)
    {
        var options = OwnFiles.ToWrite(FileMode.OpenOrCreate);
        options.Share = FileShare.None; // flock(2)
        try
        {
            return new(new FileStream($"{file}.lock", options));
        }
        catch (IOException e) when (e.HResult == AnotherHas)
        {
            throw new FileInUseException(file);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return new(null); // where no file can be made nothing can be written, which whoever writes is told
        }
    }

    public void Dispose() => _lock?.Dispose();
}

/// <summary>A file is one process's.</summary>
public sealed class FileInUseException(string file)
    : Exception($"A service works on {file} already, and a file is one service's; several work together on PostgreSQL (docs/running.md).");
