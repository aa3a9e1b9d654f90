using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Tests;

/// <summary>Each on a store of its own: these cut into it.</summary>
public sealed class CareTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new();

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public ValueTask InitializeAsync() => _store.InitializeAsync();

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    private async Task<long> ThreeEntriesAsync()
    {
        var ticket = await _store.OpenAsync();
        await _store.WriteAsync(ticket, new PartReserved("C8NEWW2286", "Cindral C8", 8_000_000_000_000, "Stores"));
        await _store.WriteAsync(ticket, new EngineerAssigned("ilka"));
        return ticket;
    }

    [Fact]
    public async Task Lists_that_were_thrown_away_come_back_the_same_from_the_journal()
    {
        await ThreeEntriesAsync();
        var other = await _store.OpenAsync(StoreInUse.Fault("7", "P8OTHER777", "FSC-2"));
        await _store.WriteAsync(other, new DrivePulled("7", "P8OTHER777"));
        var (lines, places) = (_store.Dump("ticket_line"), _store.Dump("drive_place"));
        _store.Tamper("DELETE FROM drive_place; DELETE FROM ticket_line");

        (await _store.Get<Projections>().RebuildAsync(Ct)).ShouldBe(2);

        (_store.Dump("ticket_line"), _store.Dump("drive_place")).ShouldBe((lines, places));
    }

    [Fact]
    public async Task Lists_told_by_other_rules_are_told_anew_while_people_read_and_write()
    {
        await ThreeEntriesAsync();
        await _store.OpenAsync(StoreInUse.Fault("7", "P8OTHER777", "FSC-2"));
        var lines = _store.Dump("ticket_line");
        _store.Tamper("UPDATE ticket_line SET rules = 0, next = 'a word of the older form'");

        var writing = Task.WhenAll(Enumerable.Range(0, 50).Select(i => _store.WriteAsync(1002, new NoteWritten($"{i}"))));
        (await _store.Get<Projections>().BringUpToDateAsync(Ct)).ShouldBe(2);
        await writing;

        _store.Dump("ticket_line").Split('\n')[0].ShouldBe(lines.Split('\n')[0]);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Telling_lists_anew_that_was_interrupted_goes_on_with_those_that_are_left()
    {
        for (var i = 0; i < 5; i++)
            await _store.OpenAsync(StoreInUse.Fault(asset: $"FSC-{i}"));
        _store.Tamper("UPDATE ticket_line SET rules = 0 WHERE number > 1003");

        (await _store.Get<Projections>().BringUpToDateAsync(Ct)).ShouldBe(2);
        (await _store.Get<Projections>().BringUpToDateAsync(Ct)).ShouldBe(0);
    }

    [
        Theory,
        InlineData("T-1001", 1),
        InlineData("p8badd0517", 1),
        InlineData("D0517", 1),
        InlineData("fsc-2", 1),
        InlineData("BADD", 1),
        InlineData("1002", 1),
        InlineData("100%", 0),
        InlineData("ZZZZZ", 0)
    ]
    public async Task A_ticket_is_found_by_its_number_and_by_any_part_of_its_asset_or_serial(string text, int count)
    {
        await _store.OpenAsync();
        await _store.OpenAsync(StoreInUse.Fault("7", "P8OTHER777", "FSC-2"));

        (await _store.Get<TicketLines>().FindAsync(new TicketSearch(Find: text), Ct)).Count.ShouldBe(count);
    }

    [Fact]
    public void What_a_killed_backup_left_beside_the_database_is_removed_and_one_that_is_being_made_is_not()
    {
        StoreInUse.IsAboutTheFile();
        string[] left = [$"{_store.File}.copying-1", $"{_store.File}.copying-1-wal", $"{_store.File}.backup-1"];
        var made = $"{_store.File}.copying-2";
        foreach (var file in left.Append(made))
            File.WriteAllText(file, "half");
        foreach (var file in left)
            File.SetLastWriteTimeUtc(file, DateTime.UtcNow.AddHours(-2));

        _store.Get<BackupFile>().Sweep(DateTimeOffset.UtcNow);

        left.Append(made).Append(_store.File).Where(File.Exists).ShouldBe([made, _store.File]);
    }

    [Fact]
    public async Task A_backup_taken_while_people_write_is_whole()
    {
        StoreInUse.IsAboutTheFile();
        var ticket = await ThreeEntriesAsync();
        var copy = _store.File + ".copy";

        var writing = Task.WhenAll(Enumerable.Range(0, 300).Select(i => _store.WriteAsync(ticket, new NoteWritten($"{i}"))));
        await _store.Get<Database>().BackupAsync(copy, Ct);
        await writing;

        await using var restored = new StoreInUse();
        File.Copy(copy, restored.File);
        await restored.InitializeAsync();
        (await restored.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Verifying_while_people_write_finds_nothing_missing_and_holds_nobody_up()
    {
        var ticket = await ThreeEntriesAsync();
        await Task.WhenAll(Enumerable.Range(0, 2_000).Select(i => _store.WriteAsync(ticket, new NoteWritten($"{i}"))));
        using var done = new CancellationTokenSource();
        var written = 0;
        var writing = Task.Run(
            async () =>
            {
                for (; !done.IsCancellationRequested; written++)
                    await _store.OpenAsync(StoreInUse.Fault(asset: $"FSC-{written}"));
            },
            Ct
        );

        for (var i = 0; i < 5; i++)
            (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();

        await done.CancelAsync();
        await writing;
        written.ShouldBeGreaterThan(10);
    }

    [Fact]
    public async Task A_file_that_is_taken_away_takes_no_acknowledged_entry_with_it_and_is_gone_on_with_when_it_is_back()
    {
        StoreInUse.IsAboutTheFile();
        var ticket = await ThreeEntriesAsync();
        foreach (var end in new[] { "", "-wal", "-shm" })
            File.Move(_store.File + end, _store.File + end + ".away");

        await Should.ThrowAsync<Exception>(() => _store.WriteAsync(ticket, new NoteWritten("Into nothing")));
        await Should.ThrowAsync<Exception>(() => _store.WriteAsync(ticket, new NoteWritten("Into nothing again")));

        foreach (var end in new[] { "-shm", "-wal", "" })
            File.Move(_store.File + end + ".away", _store.File + end, overwrite: true);
        await _store.WriteAsync(ticket, new NoteWritten("Back"));
        (await _store.Journal.ReadAsync(ticket, Ct))!
            .Arrived.Select(e => e.Body)
            .OfType<NoteWritten>()
            .Select(n => n.Text)
            .ShouldBe(["Back"]);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task The_database_and_all_that_lies_beside_it_is_nobody_elses_to_read()
    {
        StoreInUse.IsAboutTheFile();
        await ThreeEntriesAsync();
        await _store.Get<Seals>().SealAsync(Ct);
        await using (await _store.Get<BackupFile>().MakeAsync(keys: true, Ct))
            // the store has a folder of its own
            foreach (var file in Directory.EnumerateFiles(Path.GetDirectoryName(_store.File)!, "*", SearchOption.AllDirectories))
                if (!OperatingSystem.IsWindows())
                    File.GetUnixFileMode(file).ShouldBe(OwnFiles.Mode, file);
    }

    [Fact]
    public async Task A_backup_is_put_where_nothing_is_and_goes_on_from_there()
    {
        StoreInUse.IsAboutTheFile();
        await ThreeEntriesAsync();
        await _store.TakePictureAsync(1001, [1, 2, 3]);
        var seal = (await _store.Get<Seals>().SealAsync(Ct)).Text;
        var (zip, folder) = (_store.File + ".zip", Directory.CreateTempSubdirectory("nailcrow-restored-").FullName);
        await using (var backup = await _store.Get<BackupFile>().MakeAsync(keys: true, Ct))
        await using (var file = File.Create(zip))
            await backup.CopyToAsync(file, Ct);

        await using var restored = new StoreInUse();
        BackupFile.Restore(zip, restored.File).ShouldBeNull();
        await restored.InitializeAsync();

        (await restored.VerifyAsync(seal)).Troubles.ShouldBeEmpty();
        restored.Get<Seals>().Fingerprint.ShouldBe(_store.Get<Seals>().Fingerprint);
        BackupFile
            .Restore(zip, restored.File)
            .ShouldBe(
                $"{restored.File} is there already; a backup is restored only where nothing is. Name another place with --Nailcrow:Data, or move it away."
            );
        File.WriteAllText(zip, "PK? no");
        BackupFile
            .Restore(zip, Path.Combine(folder, "x.db"))
            .ShouldBe($"{zip} is no backup, or only part of one: it cannot be read as a ZIP archive.");
        Directory.Delete(folder, recursive: true);
    }
}
