namespace Nailcrow.Console.Tests;

/// <summary>
/// Console tests share a service, a machine and a browser, and run one after the other in it. There are two such, side by side: much of
/// what is tried waits for a clock on a page, and a processor that waits does nothing.
/// </summary>
[CollectionDefinition(Name)]
public sealed class OneBrowser : ICollectionFixture<ConsoleInUse>
{
    public const string Name = "one browser";
}

/// <summary>The other one.</summary>
[CollectionDefinition(Name)]
public sealed class OtherBrowser : ICollectionFixture<ConsoleInUse>
{
    public const string Name = "the other browser";
}
