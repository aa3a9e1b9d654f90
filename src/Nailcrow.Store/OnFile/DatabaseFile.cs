using System.Buffers.Binary;
using System.Runtime.InteropServices;

namespace Nailcrow.Store.OnFile;

/// <summary>
/// Where the embedded database lies, and which file that is: one that was removed, or had another put in its place, goes on being
/// written to.
/// </summary>
public sealed partial record DatabaseFile(string Path)
{
    // statx(2): relative to the working directory, ask for the inode; the buffer's layout is the kernel's on every machine.
    private const int AtWorkingDirectory = -100;
    private const uint AskForInode = 0x100;
    private const int BufferBytes = 256;
    private const int InodeAt = 32;
    private const int DeviceAt = 136;

    /// <summary>Which file is at its place now; null where there is none.</summary>
    internal FileIdentity? Now
    {
        get
        {
            var buffer = new byte[BufferBytes];
            try
            {
                return StatX(AtWorkingDirectory, Path, 0, AskForInode, buffer) == 0
                    ? new(
                        BinaryPrimitives.ReadUInt64LittleEndian(buffer.AsSpan(DeviceAt)),
                        BinaryPrimitives.ReadUInt64LittleEndian(buffer.AsSpan(InodeAt))
                    )
                    : null;
            }
            catch (Exception e) when (e is EntryPointNotFoundException or DllNotFoundException) // not on Linux: that there is one is all that is known
            {
                return File.Exists(Path) ? new(0, 0) : null;
            }
        }
    }

    [LibraryImport("libc", EntryPoint = "statx", StringMarshalling = StringMarshalling.Utf8)]
    private static partial int StatX(int directory, string path, int flags, uint mask, [Out] byte[] buffer);
}

/// <summary>What tells a file from every other, as long as somebody has it open: the device it is on, and its number there.</summary>
internal readonly record struct FileIdentity(ulong Device, ulong Inode);
