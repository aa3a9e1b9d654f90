using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Swaps;

/// <summary>The service at a machine: each test its own, since each takes the machine apart.</summary>
[Takes(102)]
public sealed class SwapTests : IAsyncLifetime
{
    private readonly PeopledService _service = new();
    private NailcrowClient _ilka = null!; // xUnit calls InitializeAsync before any test

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        await _service.InitializeAsync();
        _ilka = await _service.AsAsync("ilka");
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    private async Task<JsonElement> AtTheMachineAsync() =>
        JsonDocument.Parse(await _service.Machine.LookAsync()).RootElement.GetProperty("view");

    /// <summary>Machine and service have only just begun, on cores that others use too: one late first answer is not what is tested.</summary>
    private async Task<Nailcrow.Client.Appliances.BaysView> FirstLookAsync()
    {
        try
        {
            return await _ilka.BaysAsync("FSC-0107", Ct);
        }
        catch (ApiProblem late) when ((int)late.Status == 502)
        {
            return await _ilka.BaysAsync("FSC-0107", Ct);
        }
    }

    private async Task<(long Ticket, string Bad, string New)> ReadyAsync()
    {
        await _service.Machine.HandAsync("fail/2");
        var bad = (await FirstLookAsync()).Snapshot.BayLabelled("2")?.Serial ?? "";
        var replacement = (await AtTheMachineAsync()).GetProperty("table")[0].GetProperty("serial").GetString() ?? "";
        var ticket = (await _ilka.ReportAsync(new FaultAsk("FSC-0107", "Amber lamp", Bay: "2", Serial: bad), Ct)).Ticket;
        await _service.WriteAsync("dorrik", ticket, new EngineerAssigned("ilka"));
        await _ilka.TakeSnapshotAsync(ticket, Ct);
        await _service.WriteAsync("sefa", ticket, new PartReserved(replacement, "Cindral C8", 8_001_563_222_016, "Stores"));
        await _service.WriteAsync("sefa", ticket, new PartIssued(replacement, "ilka"));
        await _service.WriteAsync("ilka", ticket, new ArrivedOnSite());
        await _ilka.StartRunAsync(ticket, null, Ct);
        return (ticket, bad, replacement);
    }

    /// <summary>Follows the sheet with hands at the machine until it stands at a step, or at its end.</summary>
    private async Task<TicketView> FollowAsync(long ticket, string replacement, string until = "")
    {
        for (var steps = 0; steps < 80; steps++)
        {
            var view = await _ilka.TicketAsync(ticket, Ct);
            if (view.Run?.Current is not { } step || step.Id == until)
                return view;
            if (
                step.Id == "serial-out"
                && (await AtTheMachineAsync()).GetProperty("bays")[1].TryGetProperty("drive", out var there)
                && there.ValueKind == JsonValueKind.Object
            )
                await _service.Machine.HandAsync("pull/2");
            if (step.Id == "insert")
                await _service.Machine.HandAsync($"insert/2/{replacement}");
            if (step.Id == "start")
                await _service.Machine.HandAsync("start/vault/2");
            if (step.Kind == StepKind.Light)
                await _ilka.SwitchLightAsync(ticket, step.Records == Records.LightOn, Ct);
            if (view.Run.Unmet is not null && step.Kind == StepKind.Gate)
                await _ilka.TakeSnapshotAsync(ticket, Ct);
            if (step.Kind is StepKind.Hold || step.Gate is GateFact.DriveJoined)
                await Soon.IsAsync(async () => (await _ilka.TicketAsync(ticket, Ct)).Run?.Unmet is null, Ct);
            await TryAsync(ticket, Body(view.Run.Sheet, step, view.Run.Expected));
        }
        throw new TimeoutException($"The run never came to '{until}'.");
    }

    private static EntryBody Body(RunSheet sheet, RunStep step, string? expected) =>
        step.IsPassed
            ? new StepPassed(sheet.Id, step.Id)
            : new StepAnswered(
                sheet.Id,
                step.Id,
                step.Erases ? $"2 {expected}"
                    : step.Kind == StepKind.Scan ? expected ?? ""
                    : step.Kind == StepKind.Read ? "Nightly"
                    : step.Answers[0].Answer
            );

    private async Task TryAsync(long ticket, EntryBody body)
    {
        try
        {
            await _ilka.WriteAsync(ticket, body, Ct);
        }
        catch (ApiProblem no) when (no.Message.StartsWith("Wait", StringComparison.Ordinal))
        {
            // the hold is not over; the next round asks again
        }
    }

    [Fact]
    public async Task One_swap_goes_from_the_fault_to_the_closed_ticket()
    {
        var (ticket, bad, replacement) = await ReadyAsync();

        var view = await FollowAsync(ticket, replacement);
        view.Rebuild.Look.State.ShouldBe(RebuildState.Done);
        view.Rebuild.Readings.Count.ShouldBeGreaterThan(1);
        view.Changes.Select(c => c.Sentence).ShouldBe([$"Bay 2 held {bad} and now holds {replacement}."]);

        (await _service.RefusedAsync("ilka", ticket, new TicketClosed())).ShouldBe(
            (409, $"Not yet: sign-off: The customer has not signed off. custody: {bad} is with engineer ilka.")
        );
        await _service.WriteAsync(
            "ilka",
            ticket,
            new ReturnOpened(bad, ReturnReason.ExchangeUnderWarranty, new(HolderKind.Maker, "Pellworth"), "RX-1", null, "Archivist")
        );
        await _service.WriteAsync("ilka", ticket, new ReturnSent(bad, "Overfell Parcels"));
        await _service.WriteAsync("sefa", ticket, new ReturnArrived(bad, bad));
        await _service.WriteAsync("ilka", ticket, new CustomerSignedOff("Archivist"));
        (await _service.WriteAsync("ilka", ticket, new TicketClosed())).Stage.ShouldBe(Stage.Closed);

        var verified = await (await _service.AsAsync("admin")).VerifyAsync(Ct);
        (verified.Holds, verified.Tickets).ShouldBe((true, 1));
    }

    [Fact]
    public async Task A_serial_of_another_drive_in_the_machine_is_told_with_its_bay_and_leads_back()
    {
        var (ticket, _, replacement) = await ReadyAsync();
        var view = await FollowAsync(ticket, replacement, until: "serial-out");
        var wrong = view.Before?.BayLabelled("3")?.Serial ?? "";

        var receipt = await _service.WriteAsync("ilka", ticket, new StepAnswered(view.Run!.Sheet.Id, "serial-out", wrong));

        receipt.Said.ShouldBe(
            $"{wrong} was read; {view.Run.Sheet.TargetSerial} was expected. That is the drive of bay 3, member of vault."
        );
        var now = await _ilka.TicketAsync(ticket, Ct);
        (now.Run?.Current?.Id, now.Run?.Bay).ShouldBe(("put-back", null));
        now.Run!.Current!.Answers.Select(a => a.Answer).ShouldBe([$"bay {now.Run.Sheet.TargetBay}", "bay 3", "not-so"]);
    }

    [Fact]
    public async Task Nothing_blinks_for_somebody_who_may_not_switch_it()
    {
        var (ticket, _, _) = await ReadyAsync();

        var no = await Should.ThrowAsync<ApiProblem>(async () =>
            await (await _service.AsAsync("admin")).SwitchLightAsync(ticket, true, Ct)
        );

        ((int)no.Status, no.Message).ShouldBe((403, "admin may not do this; it takes the role engineer or dispatcher or stores or lead."));
        JsonDocument.Parse(await _service.Machine.LookAsync()).RootElement.GetProperty("locatorOn").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task A_machine_that_hangs_does_not_stop_a_person_from_typing_what_they_see()
    {
        var (ticket, _, replacement) = await ReadyAsync();
        await FollowAsync(ticket, replacement, until: "snapshot-before");
        await _service.Machine.HandAsync("behave/hangs");

        var no = await Should.ThrowAsync<ApiProblem>(() => _ilka.TakeSnapshotAsync(ticket, Ct));
        ((int)no.Status, no.Message).ShouldBe(
            (
                502,
                $"FSC-0107 at {_service.Machine.Address.ToString().TrimEnd('/')} did not answer within 30 s. That says "
                    + "nothing about its drives: look at the machine another way, or type in what its screen shows."
            )
        );

        var typed = (await _ilka.TicketAsync(ticket, Ct)).Latest! with { Source = "person" };
        await _service.WriteAsync("ilka", ticket, new SnapshotTaken(typed));
        (await _ilka.TicketAsync(ticket, Ct)).Run?.Unmet.ShouldBeNull();
    }

    [Fact]
    public async Task An_array_with_no_redundancy_gets_no_swap_but_the_sheet_that_says_so_before_anybody_travels()
    {
        var ticket = (await _ilka.ReportAsync(new FaultAsk("FSC-0311", "Disk gone", Bay: "1"), Ct)).Ticket;
        var snapshot = new Snapshot(
            DateTimeOffset.UtcNow,
            "person",
            [
                new("1", BayRole.Dropped, DriveHealth.Faulted, Serial: "T4AAAA1", Array: "scratch"),
                new("2", BayRole.Member, Serial: "T4AAAA2", Array: "scratch"),
            ],
            [new("scratch", ArrayLevel.Raid0, 2, ArrayState.Failed)]
        );
        await _service.WriteAsync("ilka", ticket, new SnapshotTaken(snapshot));
        await _service.WriteAsync("sefa", ticket, new PartReserved("T4NEW001", "T", 4_000_787_030_016, "Stores"));

        (await Should.ThrowAsync<ApiProblem>(() => _ilka.StartRunAsync(ticket, "front-off", Ct))).Message.ShouldBe(
            "scratch has no redundancy: a swap brings no data back. Say so before anybody travels; it is rebuilt from nothing and restored."
        );
        await _ilka.StartRunAsync(ticket, null, Ct);
        (await _ilka.TicketAsync(ticket, Ct)).Run!.Sheet.Procedure.ShouldBe("too-many-lost"); // the line above made it
    }

    [Fact]
    public async Task What_the_machine_says_of_another_bay_while_hands_are_in_it_opens_no_ticket_of_its_own()
    {
        var (ticket, _, replacement) = await ReadyAsync();
        await FollowAsync(ticket, replacement, until: "serial-out");

        using (var udp = new UdpClient())
        {
            var line = $"<131>1 {DateTime.UtcNow:yyyy-MM-ddTHH:mm:ssZ} brk12-0007 storage - - - drive in bay 9 went offline";
            await udp.SendAsync(Encoding.UTF8.GetBytes(line), "127.0.0.1", await _service.Service.SyslogPortAsync(), Ct);
        }

        var dorrik = await _service.AsAsync("dorrik");
        var joined = await Soon.ComesAsync(async () => (await dorrik.IntakeAsync("joined", Ct)).Items, items => items.Count > 0, Ct);
        joined.ShouldHaveSingleItem().Ticket.ShouldBe(ticket);
        (await dorrik.TicketsAsync(new(Asset: "FSC-0107"), Ct)).Tickets.ShouldHaveSingleItem();
        (await dorrik.TicketAsync(ticket, Ct)).Evidence.ShouldContain(e => e.Bay == "9");
    }

    [Fact]
    public async Task A_serial_that_only_slipped_is_read_again_and_what_was_read_stands_beside_what_was_expected()
    {
        var (ticket, bad, replacement) = await ReadyAsync();
        var at = await FollowAsync(ticket, replacement, until: "serial-out");
        (at.Run?.Current?.See, at.Run?.Bay, at.Run?.MayBeShown).ShouldBe((null, null, true)); // nothing to copy from
        var slip = $"{bad[..^2]}{bad[^1]}{bad[^2]}";

        await _service.WriteAsync("ilka", ticket, new StepAnswered(at.Run!.Sheet.Id, "serial-out", slip));

        var after = await _ilka.TicketAsync(ticket, Ct);
        (after.Run?.Current?.Id, after.Swap.NearMisses.Count, after.Swap.WrongOut).ShouldBe(("serial-out", 0, null));
        after.Run?.LastScan?.Differs.ShouldBe([bad.Length - 2, bad.Length - 1]);
    }
}
