using System.Buffers;
using System.IO.Pipelines;
using System.Runtime.CompilerServices;

namespace Nailcrow.Service.Intake.Syslog;

/// <summary>Cuts a TCP stream into messages: "LENGTH SP MESSAGE" where it begins with a digit, else a line up to LF (RFC 6587).</summary>
internal static class SyslogFrames
{
    // As much as a datagram can carry.
    private const int LongestFrame = 64 * 1024;

    /// <exception cref="InvalidDataException">A frame longer than any message, or a length that is none.</exception>
    public static async IAsyncEnumerable<byte[]> ReadAsync(
        Stream stream,
        TimeSpan silentAtMost,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        var pipe = PipeReader.Create(stream);
        while (true)
        {
            using var silent = CancellationTokenSource.CreateLinkedTokenSource(ct);
            silent.CancelAfter(silentAtMost);
            var read = await pipe.ReadAsync(silent.Token);
            var buffer = read.Buffer;
            while (Next(ref buffer, read.IsCompleted) is { } frame)
                if (frame.Length > 0)
                    yield return frame;
            if (buffer.Length > LongestFrame)
                throw new InvalidDataException($"a message is longer than {LongestFrame} bytes");
            pipe.AdvanceTo(buffer.Start, buffer.End);
            if (read.IsCompleted)
                yield break;
        }
    }

    private static byte[]? Next(ref ReadOnlySequence<byte> buffer, bool atEnd)
    {
        if (buffer.IsEmpty)
            return null;
        if (buffer.FirstSpan[0] is >= (byte)'1' and <= (byte)'9')
            return Counted(ref buffer);
        if (buffer.PositionOf((byte)'\n') is { } end)
        {
            var line = buffer.Slice(0, end).ToArray();
            buffer = buffer.Slice(buffer.GetPosition(1, end));
            return line;
        }
        if (!atEnd)
            return null;
        var rest = buffer.ToArray();
        buffer = buffer.Slice(buffer.End);
        return rest;
    }

    private static byte[]? Counted(ref ReadOnlySequence<byte> buffer)
    {
        var length = 0;
        var reader = new SequenceReader<byte>(buffer);
        while (reader.TryRead(out var next))
        {
            if (next == ' ')
            {
                if (reader.Remaining < length)
                    return null;
                var frame = buffer.Slice(reader.Position, length).ToArray();
                buffer = buffer.Slice(buffer.GetPosition(length, reader.Position));
                return frame;
            }
            if (next is < (byte)'0' or > (byte)'9' || (length = length * 10 + next - '0') > LongestFrame)
                throw new InvalidDataException("a message begins with a length that is none, or is too long");
        }
        return null;
    }
}
