namespace Nailcrow.Console.Tests;

/// <summary>All console tests share one service, one machine and one browser: two of each at once are too much for two cores.</summary>
[CollectionDefinition(Name)]
public sealed class OneBrowser : ICollectionFixture<ConsoleInUse>
{
    public const string Name = "one browser";
}
