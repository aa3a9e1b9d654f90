using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Store.Appliances.Csv;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Store.Tests.Record;

public sealed class SealTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new();

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private Seals Seals => _store.Get<Seals>();

    public ValueTask InitializeAsync() => _store.InitializeAsync();

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    private Seal Read(string text) => Seals.Read(text).Is(out var read, out var no) ? read.Seal : throw new InvalidOperationException(no);

    [Fact]
    public async Task Each_seal_goes_on_from_the_one_before_and_says_what_one_from_nothing_would()
    {
        var ticket = await _store.OpenAsync();
        var texts = new List<string>();
        foreach (var more in new[] { 1, 1100, 5, 1024 })
        {
            await Task.WhenAll(Enumerable.Range(0, more).Select(i => _store.WriteAsync(ticket, new NoteWritten($"{i}"))));
            texts.Add((await Seals.SealAsync(Ct)).Text);
        }

        var seals = texts.Select(Read).ToList();
        seals.Select(s => (s.Number, s.Entries)).ShouldBe([(1, 2), (2, 1102), (3, 1107), (4, 2131)]);
        seals.Skip(1).Select(s => s.Before).ShouldBe(texts.SkipLast(1).Select(Seal.HashOf));
        var anew = new SealDraft(null, 0);
        foreach (var entry in (await _store.Journal.ReadAsync(ticket, Ct))!.Arrived)
            anew.Add(entry.Seq, ticket, entry.Seq, entry.Hash);
        (seals[3].Root, seals[3].Blocks).ShouldBe(
            (
                anew.Finish(1, default, "", SealedLedger.Empty, SealedLog.Empty).Root,
                anew.Finish(1, default, "", SealedLedger.Empty, SealedLog.Empty).Blocks
            ),
            Comparing
        );
        foreach (var text in texts)
            (await _store.VerifyAsync(text)).Troubles.ShouldBeEmpty();
    }

    private static readonly IEqualityComparer<(string, IReadOnlyList<string>)> Comparing = EqualityComparer<(
        string,
        IReadOnlyList<string>
    )>.Create((a, b) => a.Item1 == b.Item1 && a.Item2.SequenceEqual(b.Item2));

    [Fact]
    public async Task A_seal_that_is_made_while_a_list_of_drives_is_brought_in_holds_afterwards()
    {
        var file = Path.Combine(Path.GetDirectoryName(_store.File)!, "drives.csv");
        await File.WriteAllLinesAsync(
            file,
            ["serial,model,size,depot", .. Enumerable.Range(0, 3_000).Select(n => $"C8LIST{n:00000},Cindral C8,8TB,Stores")],
            Ct
        );
        var (seals, parts) = (new List<string>(), 0);

        var brought = Task.Run(() =>
            _store.Get<CsvImport>().RunAsync(ImportKind.Drives, file, dryRun: false, allOrNothing: true, "sefa", Ct)
        );
        while (!brought.IsCompleted)
        {
            await _store.Get<LedgerBook>().WriteAsync([Came($"C8HAND{++parts:00000}")], Ct); // somebody stands at a shelf meanwhile
            seals.Add((await Seals.SealAsync(Ct)).Text);
        }

        (await brought).Written.ShouldBe(3_000);
        seals.Add((await Seals.SealAsync(Ct)).Text);
        seals.Select(s => Read(s).Ledger!.Lines).Distinct().Count().ShouldBeGreaterThan(3, "some were made in the middle of it");
        foreach (var seal in seals.Where((_, nth) => nth % Math.Max(1, seals.Count / 3) == 0).Append(seals[^1]))
            (await _store.VerifyAsync(seal)).Troubles.ShouldBeEmpty();
    }

    private static Movement Came(string serial) =>
        new(
            Guid.CreateVersion7(),
            serial,
            MovementKind.Came,
            DateTimeOffset.UtcNow,
            "sefa",
            new Holder(HolderKind.Depot, "Stores"),
            Part: new("Cindral C8", 8_000_000_000_000)
        );

    [Fact]
    public async Task Where_nothing_was_written_since_the_seal_is_the_same_and_its_file_is_put_back()
    {
        await _store.OpenAsync();
        var first = await Seals.SealAsync(Ct);
        File.Delete(Seals.FileOf(1));

        (await Seals.SealAsync(Ct)).ShouldBe(first);

        File.ReadAllText(Seals.FileOf(1)).ShouldBe(first.Text);
        if (!OperatingSystem.IsWindows())
            File.GetUnixFileMode(Seals.FileOf(1)).ShouldBe(OwnFiles.Mode);
    }

    [Fact]
    public async Task A_tickets_proof_leads_to_the_seal_and_covers_what_was_sealed()
    {
        var (first, second) = (await _store.OpenAsync(), await _store.OpenAsync(StoreInUse.Fault(asset: "FSC-2")));
        (await Seals.ProveAsync(first, Ct)).ShouldBe(
            new Parsed<TicketProof>.Refused(
                "Nothing has been sealed yet; 'nailcrow admin seal' makes a seal now, and there is one every day."
            )
        );
        await _store.WriteAsync(first, new NoteWritten("Sealed"));
        await Seals.SealAsync(Ct);
        await _store.WriteAsync(first, new NoteWritten("Not yet sealed"));

        var proof = ((Parsed<TicketProof>.Ok)await Seals.ProveAsync(first, Ct)).Value;

        proof.Entries.Count.ShouldBe(2);
        var seal = Read(proof.Seal);
        var root = MerkleTree.RootFrom(
            MerkleTree.Leaf(proof.Entries[^1].Hash),
            proof.Leaf,
            seal.Entries,
            [.. proof.Path.Select(Convert.FromHexString)]
        );
        Convert.ToHexStringLower(root).ShouldBe(seal.Root);
        _ = second;
    }
}
