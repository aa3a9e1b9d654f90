using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Store.People;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Store.Tests.Record;

/// <summary>Who came in and who let them in is kept like the journal: whoever changes it shows.</summary>
public sealed class SecurityLogTests : IAsyncLifetime
{
    private const string NoGuards = "DROP TRIGGER security_keeps_every_line; DROP TRIGGER security_keeps_what_was_written; ";

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private readonly StoreInUse _store = new();

    private SecurityLog Log => _store.Get<SecurityLog>();

    public async ValueTask InitializeAsync()
    {
        await _store.InitializeAsync();
        foreach (var name in new[] { "ilka", "tamsel", "lioth", "ilka" })
            await Log.WriteAsync(new(name, "198.51.100.7"), SecurityEvent.SignedIn, null, "a browser on Linux", Ct);
    }

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    [Fact]
    public async Task What_was_written_is_told_newest_first_a_page_at_a_time_and_of_one_name()
    {
        var first = await Log.PageAsync(null, null, null, 3, Ct);
        var next = await Log.PageAsync(first[^1].Seq, null, null, 3, Ct);

        first.Select(l => l.Seq).ShouldBe([4, 3, 2]);
        next.ShouldHaveSingleItem()
            .ShouldBe(new SecurityLine(1, next[0].At, "ilka", SecurityEvent.SignedIn, null, "198.51.100.7", "a browser on Linux"));
        (await Log.PageAsync(null, "ilka", null, 10, Ct)).Select(l => l.Seq).ShouldBe([4, 1]);
        (await Log.PageAsync(null, null, SecurityEvent.KeyMade, 10, Ct)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_log_that_nobody_touched_is_whole() => (await TroublesAsync()).ShouldBeEmpty();

    [Theory]
    [InlineData(
        "UPDATE security_line SET text = replace(text, 'tamsel', 'wenna') WHERE seq = 2",
        TroubleKind.Changed,
        "Line 2 of the security log is not what was written."
    )]
    [InlineData(
        "UPDATE security_line SET by = 'wenna' WHERE seq = 2",
        TroubleKind.Changed,
        "Line 2 of the security log is listed as another than it says."
    )]
    [InlineData(
        "UPDATE security_line SET text = 'none' WHERE seq = 2",
        TroubleKind.CannotBeRead,
        "Line 2 of the security log cannot be read by this version."
    )]
    [InlineData("DELETE FROM security_line WHERE seq = 2", TroubleKind.Missing, "The lines of the security log from 2 to 2 are missing.")]
    [InlineData(
        "DELETE FROM security_line WHERE seq > 2",
        TroubleKind.Missing,
        "2 lines at the end of the security log that were written are not there any more."
    )]
    public async Task Whoever_changes_it_shows(string how, TroubleKind kind, string sentence)
    {
        _store.Tamper(NoGuards + how);

        (await TroublesAsync()).ShouldContain(new Trouble(kind, null, null, sentence));
    }

    [Theory]
    [InlineData("UPDATE security_line SET by = 'wenna'")]
    [InlineData("DELETE FROM security_line")]
    public void The_database_itself_refuses_to_change_it(string how) =>
        Should.Throw<System.Data.Common.DbException>(() => _store.Tamper(how)).Message.ShouldContain("The security log is append-only");

    [Fact]
    public async Task What_is_done_at_the_same_time_stands_in_one_chain()
    {
        await Task.WhenAll(Enumerable.Range(0, 40).Select(i => Log.WriteAsync(new($"p{i}", null), SecurityEvent.SignedIn, null, null, Ct)));

        (await TroublesAsync()).ShouldBeEmpty();
        (await Log.PageAsync(null, null, null, 100, Ct)).Count.ShouldBe(44);
    }

    [Fact]
    public async Task A_line_written_anew_with_every_hash_right_shows_against_a_seal()
    {
        var seal = (await _store.Get<Seals>().SealAsync(Ct)).Text;
        (await TroublesAsync(seal)).ShouldBeEmpty();
        await Log.WriteAsync(new("wenna", null), SecurityEvent.SignedIn, null, null, Ct); // what came since is no trouble
        (await TroublesAsync(seal)).ShouldBeEmpty();

        var rewritten = new StringBuilder(NoGuards);
        var hash = new string('0', 64);
        foreach (var line in (await Log.PageAsync(null, null, null, 10, Ct)).Reverse())
        {
            var text =
                $$"""{"address":"198.51.100.7","at":"{{line.At.UtcDateTime:yyyy-MM-ddTHH:mm:ss.fff}}Z","by":"nobody","what":"signed-in"}""";
            hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(hash + text)));
            rewritten.Append(
                CultureInfo.InvariantCulture,
                $"UPDATE security_line SET by = 'nobody', text = '{text}', hash = '{hash}' WHERE seq = {line.Seq}; "
            );
        }
        _store.Tamper(rewritten.ToString());

        (await TroublesAsync()).Where(t => t.Kind != TroubleKind.Unguarded).ShouldBeEmpty();
        (await TroublesAsync(seal)).ShouldContain(t =>
            t.Kind == TroubleKind.NotAsSealed
            && t.Sentence.EndsWith("a line among its first 4 was written anew since.", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task Lines_that_were_sealed_and_are_gone_with_every_trace_show_against_the_seal()
    {
        var seal = (await _store.Get<Seals>().SealAsync(Ct)).Text;

        _store.Tamper(
            NoGuards + "DELETE FROM security_line WHERE seq > 2; UPDATE sqlite_sequence SET seq = 2 WHERE name = 'security_line'"
        );

        (await TroublesAsync()).Where(t => t.Kind != TroubleKind.Unguarded).ShouldBeEmpty();
        (await TroublesAsync(seal))
            .Select(t => t.Sentence)
            .ShouldContain("The seal covers 4 lines of the security log; they are not all there any more.");
    }

    private async Task<IReadOnlyList<Trouble>> TroublesAsync(string? seal = null) =>
        [.. (await _store.VerifyAsync(seal)).Troubles.Where(t => t.Sentence.Contains("security"))];
}
