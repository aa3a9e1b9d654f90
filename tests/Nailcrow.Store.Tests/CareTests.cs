using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Tickets;
using Nailcrow.Store.Tickets;

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
    public async Task Verify_finds_nothing_wrong_with_what_was_written()
    {
        await ThreeEntriesAsync();

        (await _store.Get<JournalCheck>().VerifyAsync(Ct)).ShouldBe(new JournalVerdict(1, 3, null));
    }

    [Theory]
    [InlineData("UPDATE journal SET \"by\" = 'somebody' WHERE seq = 2", "T-1001 entry 2 (")]
    [InlineData("UPDATE journal SET body = replace(body, 'C8NEWW2286', 'C8OTHER001') WHERE seq = 2", "T-1001 entry 2 (")]
    [InlineData("UPDATE journal SET body = '{' WHERE seq = 3", "Ticket 1001 entry 3 (")]
    [InlineData("DELETE FROM journal WHERE seq = 2", "T-1001 entry 3 (")]
    [InlineData("DELETE FROM journal WHERE seq = 3", "T-1001 ends at entry 2; 3 were written.")]
    [InlineData("DELETE FROM journal", "T-1001 has no entries left.")]
    public async Task Verify_names_the_first_entry_that_somebody_with_the_file_changed(string tampering, string found)
    {
        await ThreeEntriesAsync();
        _store.Tamper($"DROP TRIGGER journal_keeps_every_entry; DROP TRIGGER journal_keeps_what_was_written; {tampering}");

        (await _store.Get<JournalCheck>().VerifyAsync(Ct)).FirstBad.ShouldStartWith(found);
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
    public async Task A_database_from_before_has_its_lists_told_anew_when_it_is_brought_up_to_date()
    {
        await ThreeEntriesAsync();
        var lines = _store.Dump("ticket_line");
        using (var db = _store.Get<IDbContextFactory<NailcrowDb>>().CreateDbContext())
            await db.GetService<IMigrator>().MigrateAsync("Beginning", Ct);
        _store.Tamper("UPDATE ticket_line SET next_room = 'swaps'"); // a word of the older form

        await _store.Get<Database>().MigrateAsync(Ct);

        _store.Dump("ticket_line").ShouldBe(lines);
    }

    [Theory, InlineData("T-1001", 1), InlineData("p8badd0517", 1), InlineData("D0517", 1), InlineData("fsc-2", 1), InlineData("ZZZZZ", 0)]
    public async Task A_ticket_is_found_by_number_asset_serial_or_the_end_of_a_serial(string text, int count)
    {
        await _store.OpenAsync();
        await _store.OpenAsync(StoreInUse.Fault("7", "P8OTHER777", "FSC-2"));

        (await _store.Get<TicketLines>().FindAsync(new TicketSearch(Find: text), Ct)).Count.ShouldBe(count);
    }

    [Fact]
    public async Task A_backup_taken_while_people_write_is_whole()
    {
        var ticket = await ThreeEntriesAsync();
        var copy = _store.File + ".copy";

        var writing = Task.WhenAll(Enumerable.Range(0, 300).Select(i => _store.WriteAsync(ticket, new NoteWritten($"{i}"))));
        await _store.Get<Database>().BackupAsync(copy, Ct);
        await writing;

        await using var restored = new StoreInUse();
        File.Copy(copy, restored.File);
        await restored.InitializeAsync();
        (await restored.Get<JournalCheck>().VerifyAsync(Ct)).FirstBad.ShouldBeNull();
    }
}
