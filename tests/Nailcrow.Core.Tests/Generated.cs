using CsCheck;

namespace Nailcrow.Core.Tests;

internal static class Generated
{
    public static Gen<T> OneOf<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);
}
