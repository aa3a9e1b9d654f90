using Nailcrow.Store.Appliances;

namespace Nailcrow.Store.Tests;

/// <summary>A firm that named its customers at its sites only, and takes the next release.</summary>
public sealed class CustomersUpgradeTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new() { Migrated = false };

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public ValueTask InitializeAsync()
    {
        StoreInUse.IsAboutTheFile();
        return _store.InitializeAsync();
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    [Fact]
    public async Task After_an_upgrade_whoever_owned_a_site_is_a_customer_and_their_machines_are_found()
    {
        await _store.BroughtToAsync("ProceduresAreBroughtBack");
        const string owner = "O'Rell \" and Daughters";
        foreach (var (site, whose) in new[] { ("Hill barn", owner), ("Mill barn", owner), ("Vault", "Halmet Seed Commons") })
            _store.Tamper(
                $"insert into site (name, body) values ('{site}', json_object('name', '{site}', 'customer', '{whose.Replace("'", "''")}', "
                    + "'address', 'x', 'zone', 'Europe/Oslo'))"
            );

        await _store.Get<Database>().MigrateAsync(Ct);

        var book = _store.Get<ReferenceBook>();
        (await book.CustomersAsync(null, null, 10, Ct)).Select(c => c.Customer.Name).ShouldBe(["Halmet Seed Commons", owner]);
        (await book.CustomerAsync(owner, Ct)).ShouldNotBeNull().Sites.ShouldBe(["Hill barn", "Mill barn"]);
    }
}
