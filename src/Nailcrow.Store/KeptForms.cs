using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Nailcrow.Store;

/// <summary>
/// A word of a list, kept by its name. One that this version does not know, because another version wrote it or somebody was at
/// the database, reads as the first of its kind until the line is told anew: one line that is wrong must not empty a list.
/// </summary>
public sealed class KeptWord<TWord>() : ValueConverter<TWord, string>(word => word.ToString(), kept => Read(kept))
    where TWord : struct, Enum
{
    public static TWord Read(string kept) => Enum.TryParse<TWord>(kept, out var word) && Enum.IsDefined(word) ? word : default;
}

/// <summary>A small number, which the file would keep as large as anybody wrote it.</summary>
public sealed class KeptNumber() : ValueConverter<int, long>(number => number, kept => Read(kept))
{
    public static int Read(long kept) => (int)Math.Clamp(kept, int.MinValue, int.MaxValue);
}

/// <summary>
/// An instant as a number that sorts as the instants do: in UTC, since the number begins with the clock's time where it was said. What is
/// no instant reads as the earliest.
/// </summary>
public sealed class KeptTime() : ValueConverter<DateTimeOffset, long>(time => Keep(time), kept => Read(kept))
{
    private static readonly DateTimeOffsetToBinaryConverter Binary = new();
    private static readonly Func<DateTimeOffset, long> ToBinary = (
        (Expression<Func<DateTimeOffset, long>>)Binary.ConvertToProviderExpression
    ).Compile();
    private static readonly Func<long, DateTimeOffset> FromBinary = (
        (Expression<Func<long, DateTimeOffset>>)Binary.ConvertFromProviderExpression
    ).Compile();

    public static long Keep(DateTimeOffset time) => ToBinary(time.ToUniversalTime());

    public static DateTimeOffset Read(long kept)
    {
        try
        {
            return FromBinary(kept);
        }
        catch (ArgumentException)
        {
            return DateTimeOffset.MinValue;
        }
    }
}
