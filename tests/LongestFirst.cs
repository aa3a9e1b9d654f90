using System.Reflection;
using Xunit.Sdk;
using Xunit.v3;

[assembly: TestCollectionOrderer(typeof(Nailcrow.Tests.LongestFirst))]

namespace Nailcrow.Tests;

/// <summary>So many seconds its tests take together, as last seen: those that take long begin first, and no core waits for the last of them.</summary>
[AttributeUsage(AttributeTargets.Class)]
internal sealed class TakesAttribute(int seconds) : Attribute
{
    public int Seconds { get; } = seconds;
}

internal sealed class LongestFirst : ITestCollectionOrderer
{
    private static readonly Dictionary<string, int> Known = typeof(LongestFirst)
        .Assembly.GetTypes()
        .Select(t => (t.FullName, t.GetCustomAttribute<TakesAttribute>()?.Seconds))
        .Where(t => t is { FullName: not null, Seconds: not null })
        .ToDictionary(t => t.FullName!, t => t.Seconds!.Value); // the filter left those that have both

    public IReadOnlyCollection<TTestCollection> OrderTestCollections<TTestCollection>(IReadOnlyCollection<TTestCollection> testCollections)
        where TTestCollection : ITestCollection =>
        [.. testCollections.OrderByDescending(c => Seconds(c)).ThenBy(c => c.TestCollectionDisplayName, StringComparer.Ordinal)];

    // A class that shares nothing is a collection of its own, which is called after it.
    private static int Seconds(ITestCollection collection) =>
        Known.Where(k => collection.TestCollectionDisplayName.Split(' ').Contains(k.Key)).Sum(k => k.Value);
}
