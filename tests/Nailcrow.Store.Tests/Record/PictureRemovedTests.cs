using Nailcrow.Core.People;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Journal;

namespace Nailcrow.Store.Tests.Record;

/// <summary>A picture goes with an entry that says why, and in no other way; then nothing of it is left in the file.</summary>
public sealed class PictureRemovedTests : IAsyncLifetime
{
    private static readonly Actor Lioth = new("lioth", [Role.Lead]);

    private readonly StoreInUse _store = new();
    private long _ticket;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        await _store.InitializeAsync();
        _ticket = await _store.OpenAsync();
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    private async Task<Guid> PictureAsync(byte[] bytes, long? on = null)
    {
        await _store.TakePictureAsync(on ?? _ticket, bytes);
        return (await _store.ReadAfreshAsync(on ?? _ticket)).Ticket.Photos[^1].Id;
    }

    private Task<Written> LetGoAsync(Guid photo, string because = "A face is on it.", long? on = null, Guid? id = null) =>
        _store.Journal.WriteAsync(on ?? _ticket, StoreInUse.Intent(new PictureRemoved(photo, because), id) with { Actor = Lioth }, Ct);

    private static string Refused(Written written) =>
        written.ShouldBeOfType<Written.Declined>().Ruling.ShouldBeOfType<Ruling.Refused>().Reason;

    [Fact]
    public async Task Nothing_of_it_is_left_in_the_file_and_its_hash_and_who_let_go_of_it_are()
    {
        StoreInUse.IsAboutTheFile();
        var bytes = Enumerable.Range(0, 40_000).Select(i => (byte)(i * 31 % 251)).ToArray(); // several pages of the file
        var photo = await PictureAsync(bytes);
        Contains(bytes).ShouldBeTrue();

        (await LetGoAsync(photo)).ShouldBeOfType<Written.Kept>();

        Contains(bytes).ShouldBeFalse();
        (await _store.Get<Photos>().FindAsync(_ticket, photo, Ct)).ShouldBeNull();
        var record = await _store.ReadAfreshAsync(_ticket);
        record
            .Ticket.PicturesRemoved[photo]
            .ShouldSatisfyAllConditions(g => g.By.ShouldBe("lioth"), g => g.Because.ShouldBe("A face is on it."));
        record.Arrived.Select(e => e.Body).OfType<PhotoTaken>().ShouldHaveSingleItem().Sha256.Length.ShouldBe(64);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();

        bool Contains(byte[] what)
        {
            _store.Tamper("PRAGMA wal_checkpoint(TRUNCATE)");
            return File.ReadAllBytes(_store.File).AsSpan().IndexOf(what.AsSpan(5_000, 200)) >= 0;
        }
    }

    [Fact]
    public async Task Twice_is_once_and_of_what_never_came_it_is_said()
    {
        var (photo, id) = (await PictureAsync([1, 2, 3]), Guid.CreateVersion7());
        var elsewhere = await _store.OpenAsync(StoreInUse.Fault(asset: "FSC-2"));

        Refused(await LetGoAsync(photo, on: elsewhere)).ShouldStartWith($"No picture {photo} came with {TicketNumber.Text(elsewhere)}");
        Refused(await LetGoAsync(photo, because: " ")).ShouldBe("Say why it may not be kept; the journal tells it instead of the picture.");
        (await LetGoAsync(photo, id: id)).ShouldBeOfType<Written.Kept>().Repeated.ShouldBeFalse();
        (await LetGoAsync(photo, id: id)).ShouldBeOfType<Written.Kept>().Repeated.ShouldBeTrue();
        Refused(await LetGoAsync(photo)).ShouldMatch(@"^It is gone already: lioth removed it on 20\d\d-\d\d-\d\d \(A face is on it\)\.$");
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task Nobody_removes_one_past_the_journal_also_not_where_its_number_is_named_in_the_reason_of_another()
    {
        var (stays, goes) = (await PictureAsync([1, 2, 3]), await PictureAsync([4, 5, 6]));
        await LetGoAsync(goes, because: $"photo {stays}");

        Should
            .Throw<System.Data.Common.DbException>(() => _store.Tamper("DELETE FROM photo"))
            .Message.ShouldContain("none goes without an entry that says why");
        (await _store.Get<Photos>().FindAsync(_ticket, stays, Ct)).ShouldNotBeNull();
    }

    [Fact]
    public async Task One_that_is_put_back_by_hand_is_told_as_what_it_is()
    {
        var photo = await PictureAsync([1, 2, 3]);
        await LetGoAsync(photo);

        _store.Tamper($"INSERT INTO photo VALUES ('{photo.ToString().ToUpperInvariant()}', {_ticket}, 'image/png', X'010203')");

        (await _store.VerifyAsync())
            .Troubles.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                t => t.Kind.ShouldBe(TroubleKind.Unexplained),
                t => t.Sentence.ShouldEndWith("entry 3 says that it is kept no more.")
            );
    }
}
