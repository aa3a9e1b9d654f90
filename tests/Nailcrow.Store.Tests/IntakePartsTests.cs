using Nailcrow.Running;
using Nailcrow.Store.Intake;

namespace Nailcrow.Store.Tests;

/// <summary>On a server what comes in lies in parts by months, and a month nobody waits for anything of is let go of at once.</summary>
public sealed class IntakePartsTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new();

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private IntakeLog Log => _store.Get<IntakeLog>();

    public ValueTask InitializeAsync() => _store.InitializeAsync();

    public ValueTask DisposeAsync() => _store.DisposeAsync();

    [Fact]
    public async Task Whenever_a_message_came_it_is_kept_once_listed_in_order_and_settled()
    {
        var now = DateTimeOffset.UtcNow;
        IntakeItem[] came = [Of(now.AddMonths(-14)), Of(now), Of(now.AddMonths(1)), Of(now.AddYears(7_000)), Of(now.AddMonths(-1))];

        await Log.KeepAsync(came, Ct);
        await Log.KeepAsync([.. came, Of(now)], Ct); // sent once more

        var listed = await Log.ListAsync([IntakeOutcome.Unmatched], 100, Ct);
        listed.Count.ShouldBe(6);
        listed.Select(i => i.ReceivedAt).ShouldBe(listed.Select(i => i.ReceivedAt).OrderDescending());
        await Log.SettleAsync([.. came.Select(i => i.Id)], IntakeOutcome.Settled, 1001, Ct);
        (await Log.FindAsync(came[0].Id, Ct))!.Outcome.ShouldBe(IntakeOutcome.Settled); // it was kept above
        (await Log.ListAsync([IntakeOutcome.Unmatched], 100, Ct)).Count.ShouldBe(1);
        (await _store.VerifyAsync()).Troubles.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_over_goes_whichever_month_it_is_of_and_what_somebody_waits_for_stays()
    {
        var now = DateTimeOffset.UtcNow;
        var waits = Of(now.AddMonths(-20), IntakeOutcome.UnknownSender);
        await Log.KeepAsync([waits, Of(now.AddMonths(-20)), Of(now.AddMonths(-14)), Of(now)], Ct);

        (await Log.TrimAsync(now.AddMonths(-13), Ct)).ShouldBe(2);

        (await Log.FindAsync(waits.Id, Ct)).ShouldNotBeNull();
        (await Log.ListAsync([IntakeOutcome.Unmatched], 100, Ct)).Count.ShouldBe(1);
        (await Log.TrimAsync(now.AddMonths(-13), Ct)).ShouldBe(0);
    }

    [Fact]
    public async Task A_month_that_is_over_goes_as_a_whole_and_what_comes_late_of_it_has_its_place()
    {
        Assert.SkipUnless(PostgresServer.IsTested, "A file lies in one part.");
        var now = DateTimeOffset.UtcNow;
        await Log.KeepAsync([.. Enumerable.Range(0, 40).Select(i => Of(now.AddMonths(-3).AddMinutes(i))), Of(now)], Ct);
        Parts().ShouldContain("intake_first");

        (await Log.TrimAsync(new(now.Year, now.Month, 1, 0, 0, 0, TimeSpan.Zero), Ct)).ShouldBe(40);

        Parts()
            .ShouldBe(
                [$"intake_{now:yyyy_MM}", $"intake_{now.AddDays(1 - now.Day).AddMonths(1):yyyy_MM}", "intake_else"],
                ignoreOrder: true
            );
        var late = Of(now.AddMonths(-3));
        await Log.KeepAsync([late], Ct);
        (await Log.FindAsync(late.Id, Ct)).ShouldNotBeNull();
        (await Log.ListAsync([IntakeOutcome.Unmatched], 100, Ct)).Count.ShouldBe(2);
    }

    [Fact]
    public async Task What_came_of_a_month_before_that_had_its_part_lies_in_it_once_it_has()
    {
        Assert.SkipUnless(PostgresServer.IsTested, "A file lies in one part.");
        var now = DateTimeOffset.UtcNow;
        var next = new DateTimeOffset(now.Year, now.Month, 1, 0, 0, 0, TimeSpan.Zero).AddMonths(1);
        await Log.KeepAsync([Of(now)], Ct);
        var part = $"intake_{next:yyyy_MM}";
        _store.Tamper($"DROP TABLE {part}"); // as if nobody had come by for a month
        _store.Tamper(
            "INSERT INTO intake (id, received_at, via, sender, text, outcome) "
                + $"SELECT gen_random_uuid(), '{next:yyyy-MM-dd} 00:00:01+00', via, sender, text, outcome FROM intake"
        );
        Lines("intake_else").ShouldBe(1);

        await Log.KeepAsync([Of(next.AddDays(1))], Ct);

        Lines("intake_else").ShouldBe(0);
        Lines(part).ShouldBe(2);
        (await Log.ListAsync([IntakeOutcome.Unmatched], 100, Ct)).Count.ShouldBe(3);
    }

    private int Lines(string part) => _store.Dump(part).Split('\n', StringSplitOptions.RemoveEmptyEntries).Length;

    private static IntakeItem Of(DateTimeOffset at, IntakeOutcome outcome = IntakeOutcome.Unmatched) =>
        new(Guid.CreateVersion7(), at, "event", "brk12-0007", null, "enclosure 2: vibration 0.8 g", outcome, null, null, null, null);

    private string[] Parts() =>
        _store
            .Dump("(SELECT inhrelid::regclass::text AS a, 0 AS b FROM pg_inherits WHERE inhparent = 'intake'::regclass) AS part")
            .Split('\n')
            .Select(line => line.Split('|')[0])
            .ToArray();
}
