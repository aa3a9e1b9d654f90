using Nailcrow.Client;
using Nailcrow.Client.Procedures;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Language;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Procedures;

/// <summary>Versions that are published, kept, compared and withdrawn; papers and pictures.</summary>
public sealed class ProcedureLibraryTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static readonly string Folder = Path.Combine(Built.Root, "procedures");

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static PublishAsk Changed(string file, string was, string now)
    {
        var files = new Dictionary<string, string>(ProcedureFolder.SharedTexts(Folder))
        {
            [file] = File.ReadAllText(Path.Combine(Folder, file)),
        };
        files = files.ToDictionary(f => f.Key, f => f.Value.Replace(was, now, StringComparison.Ordinal));
        return new(file, files, Checking.View(file, files).Trusting);
    }

    [Fact]
    public async Task Whoever_publishes_names_the_list_of_what_no_proof_can_know_and_the_library_shows_it()
    {
        var lioth = await service.AsAsync("lioth");
        var ask = Changed("screen-frozen.yaml", "Wait a minute.", "Wait two minutes.");

        foreach (var word in new[] { null, "", "00000000" })
        {
            var no = await Should.ThrowAsync<ApiProblem>(async () => await lioth.PublishAsync(ask with { Trusting = word }, Ct));
            ((int)no.Status).ShouldBe(409);
            no.Message.ShouldMatch(
                $"^screen-frozen is proved, and takes \\d+ things on trust that no proof can know; .* send 'trusting' with {ask.Trusting}\\.$"
            );
        }
        (await lioth.ProcedureAsync("screen-frozen", null, Ct)).Versions.Count.ShouldBe(1);

        var published = await lioth.PublishAsync(ask with { Trusting = $" {ask.Trusting!.ToUpperInvariant()} " }, Ct);

        var page = await lioth.ProcedureAsync("screen-frozen", published.Version, Ct);
        page.Versions[0].PublishedBy.ShouldBe("lioth");
        page.Trusted.ShouldBe(published.Trusted);
        page.Trusted.ShouldContain(t => t.What == Belief.MovesNothing && t.Step == "lamps");
        await lioth.WithdrawAsync("screen-frozen", published.Version!, "It was for a test.", Ct);
    }

    [Fact]
    public async Task Nothing_unproved_is_published_and_nobody_but_a_lead_publishes()
    {
        var broken = Changed("screen-frozen.yaml", "        closes: power\n", "");

        (await Should.ThrowAsync<ApiProblem>(async () => await (await service.AsAsync("lioth")).PublishAsync(broken, Ct))).Message.ShouldBe(
            "Nothing unproved is published. screen-frozen.yaml:50:9: put-right: The end is reached with power not put right."
        );
        (
            (int)
                (
                    await Should.ThrowAsync<ApiProblem>(async () =>
                        await (await service.AsAsync("ilka")).PublishAsync(
                            Changed("screen-frozen.yaml", "Wait a minute.", "Wait one minute."),
                            Ct
                        )
                    )
                ).Status
        ).ShouldBe(403);
    }

    [Fact]
    public async Task A_running_ticket_keeps_its_version_and_is_warned_when_that_is_withdrawn()
    {
        var (lioth, ilka) = (await service.AsAsync("lioth"), await service.AsAsync("ilka"));
        var shipped = (await ilka.ProcedureAsync("not-reached", null, Ct)).Version;
        var published = await lioth.PublishAsync(Changed("not-reached.yaml", "Try every way in", "Try each way in"), Ct);
        var ticket = await service.OpenAsync();
        await ilka.StartRunAsync(ticket, "not-reached", Ct);

        (await ilka.CompareProcedureAsync("not-reached", shipped, published.Version!, Ct))
            .Changes.Select(c => (c.Step, c.What))
            .ShouldBe([("ways", "changed")]);
        await lioth.WithdrawAsync("not-reached", published.Version!, "It sent people round in circles.", Ct);

        var run = (await ilka.TicketAsync(ticket, Ct)).Run!; // it was started above
        (run.Sheet.Version, run.Withdrawn).ShouldBe((published.Version, "It sent people round in circles."));
        var other = await service.OpenAsync("FSC-0311", "1");
        await ilka.StartRunAsync(other, "not-reached", Ct);
        (await ilka.TicketAsync(other, Ct)).Run!.Sheet.Version.ShouldBe(shipped); // likewise
    }

    [Fact]
    public async Task What_was_withdrawn_says_whom_to_ask_and_is_brought_back_with_its_story()
    {
        var (lioth, ilka) = (await service.AsAsync("lioth"), await service.AsAsync("ilka"));
        var shipped = (await ilka.ProcedureAsync("found-off", null, Ct)).Version;
        var ticket = await service.OpenAsync();
        await lioth.WithdrawAsync("found-off", shipped, "It is read by nobody.", Ct);

        (await Should.ThrowAsync<ApiProblem>(() => ilka.StartRunAsync(ticket, "found-off", Ct))).Message.ShouldBe(
            "'found-off' is for this, and was withdrawn by lioth: It is read by nobody. "
                + "Ask lioth, or a lead; one who publishes procedures brings it back or writes another."
        );
        var again = await Should.ThrowAsync<ApiProblem>(() => lioth.PublishAsync(Changed("found-off.yaml", "~", "~"), Ct));
        again.Message.ShouldContain($"This very text is found-off {shipped}, published by nailcrow");
        again.Message.ShouldContain("was withdrawn: It is read by nobody.");

        await lioth.BringBackAsync("found-off", shipped, "It is, on paper.", Ct);
        (await Should.ThrowAsync<ApiProblem>(() => lioth.BringBackAsync("found-off", shipped, "Twice.", Ct))).Message.ShouldBe(
            $"found-off {shipped} is not withdrawn."
        );
        var version = (await ilka.ProcedureAsync("found-off", null, Ct)).Versions.ShouldHaveSingleItem();
        version.WithdrawnAt.ShouldBeNull();
        version.Earlier.ShouldBe("Withdrawn by lioth: It is read by nobody. Brought back by lioth: It is, on paper.");
        await ilka.StartRunAsync(ticket, "found-off", Ct);

        await lioth.WithdrawAsync("found-off", shipped, "It is not.", Ct);
        await lioth.BringBackAsync("found-off", shipped, "It is again.", Ct);
        (await ilka.ProcedureAsync("found-off", null, Ct))
            .Versions[0]
            .Earlier.ShouldBe(
                "Withdrawn by lioth: It is read by nobody. Brought back by lioth: It is, on paper. "
                    + "Withdrawn by lioth: It is not. Brought back by lioth: It is again."
            );
    }

    [Fact]
    public async Task An_answer_taken_back_stays_in_the_journal_and_is_given_again()
    {
        var ilka = await service.AsAsync("ilka");
        var ticket = await service.OpenAsync("FSC-0311", "2");
        await ilka.StartRunAsync(ticket, "screen-frozen", Ct);
        var sheet = (await ilka.TicketAsync(ticket, Ct)).Run!.Sheet.Id; // it was started above
        await service.WriteAsync("ilka", ticket, new StepAnswered(sheet, "ways", "done"));
        await service.WriteAsync("ilka", ticket, new StepAnswered(sheet, "got-in", "no"));

        (await service.RefusedAsync("ilka", ticket, new StepTakenBack(sheet, "ways"))).Sentence.ShouldBe(
            "The last answer was given at 'got-in', not at 'ways'; only the last one is taken back."
        );
        await service.WriteAsync("ilka", ticket, new StepTakenBack(sheet, "got-in"));

        (await ilka.TicketAsync(ticket, Ct)).Run!.Current!.Id.ShouldBe("got-in"); // the sheet is not at its end
        (await service.RefusedAsync("ilka", ticket, new StepAnswered(sheet, "lamps", "maybe"))).Sentence.ShouldBe(
            "'maybe' is no answer to 'lamps'; accepted: yes, no, cannot-tell."
        );
    }

    [Fact]
    public async Task A_sheet_is_printed_and_a_picture_is_kept_once()
    {
        var ilka = await service.AsAsync("ilka");
        var ticket = await service.OpenAsync("FSC-0311", "3");
        await ilka.StartRunAsync(ticket, "screen-frozen", Ct);
        using var pdf = new MemoryStream();
        await ilka.PaperAsync(ticket, pdf, Ct);
        System.Text.Encoding.ASCII.GetString(pdf.ToArray(), 0, 5).ShouldBe("%PDF-");

        var id = Guid.CreateVersion7();
        byte[] picture = [0xFF, 0xD8, 0xFF, 0xE0, 1, 2, 3];
        (await ilka.KeepPhotoAsync(ticket, id, new MemoryStream(picture), "ways", null, Ct)).Repeated.ShouldBeFalse();
        (await ilka.KeepPhotoAsync(ticket, id, new MemoryStream(picture), "ways", null, Ct)).Repeated.ShouldBeTrue();
        (
            await Should.ThrowAsync<ApiProblem>(() =>
                ilka.KeepPhotoAsync(ticket, Guid.CreateVersion7(), new MemoryStream([1, 2, 3]), null, null, Ct)
            )
        ).Message.ShouldBe("That is no picture that is taken here; accepted: JPEG and PNG.");
        (await ilka.TicketAsync(ticket, Ct)).Photos.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_recovery_interrupts_a_sheet_which_goes_on_where_it_was_left()
    {
        var ilka = await service.AsAsync("ilka");
        var ticket = await service.OpenAsync("FSC-0311", "4");
        await service.WriteAsync("ilka", ticket, new SnapshotTaken(Lost()));
        await ilka.StartRunAsync(ticket, null, Ct);
        var first = (await ilka.TicketAsync(ticket, Ct)).Run!.Sheet; // it was started above
        await service.WriteAsync("ilka", ticket, new StepAnswered(first.Id, "told", "yes"));
        await ilka.StartRunAsync(ticket, "not-reached", Ct);
        var recovery = (await ilka.TicketAsync(ticket, Ct)).Run!; // likewise
        recovery.Interrupts.ShouldBe("No swap brings it back");

        await service.WriteAsync("ilka", ticket, new StepAnswered(recovery.Sheet.Id, "ways", "done"));
        await service.WriteAsync("ilka", ticket, new StepAnswered(recovery.Sheet.Id, "any", "yes"));
        await service.WriteAsync("ilka", ticket, new SnapshotTaken(Lost()));
        await service.WriteAsync("ilka", ticket, new StepPassed(recovery.Sheet.Id, "seen"));

        var back = (await ilka.TicketAsync(ticket, Ct)).Run!; // the interrupted one
        (back.Sheet.Id, back.Current!.Id).ShouldBe((first.Id, "backup"));
    }

    private static Snapshot Lost() =>
        new(
            DateTimeOffset.UtcNow,
            "person",
            [
                .. Enumerable
                    .Range(1, 4)
                    .Select(b => new Bay(
                        $"{b}",
                        b > 2 ? BayRole.Dropped : BayRole.Member,
                        DriveHealth.Good,
                        Serial: $"LOST000{b}",
                        Array: "gauges"
                    )),
            ],
            [new("gauges", ArrayLevel.Raid5, 4, ArrayState.Failed)]
        );

    [Fact]
    public async Task Whoever_has_a_sheet_is_not_sent_its_steps_again()
    {
        var ilka = await service.AsAsync("ilka");
        var ticket = await service.OpenAsync(bay: "3");
        await ilka.StartRunAsync(ticket, "not-reached", Ct);
        var sheet = (await ilka.TicketAsync(ticket, Ct)).Run!.Sheet; // it was started above

        var again = await ilka.TicketAsync(ticket, sheet, Ct);

        again.Run!.Sheet.ShouldBeSameAs(sheet);
        (await ilka.TicketAsync(ticket, sheet with { Id = Guid.NewGuid() }, Ct)).Run!.Sheet.Steps.Count.ShouldBe(sheet.Steps.Count);
    }

    [Fact]
    public async Task The_service_report_tells_what_a_lead_overruled_on_paper_as_well()
    {
        var (lioth, ilka) = (await service.AsAsync("lioth"), await service.AsAsync("ilka"));
        var ticket = await service.OpenAsync(bay: "4");
        await ilka.StartRunAsync(ticket, "not-reached", Ct);
        var run = (await ilka.TicketAsync(ticket, Ct)).Run!; // it was started above
        await lioth.WriteAsync(ticket, new StepOverruled(run.Sheet.Id, "ways", "I am on the telephone with the site."), Ct);

        var report = await ilka.ReportOfAsync(ticket, Ct);
        using var paper = new MemoryStream();
        await ilka.ReportPaperAsync(ticket, paper, Ct);

        var line = report.Parts.Single(p => p.Name == "Warnings that were overruled").Lines.Single();
        (line.By, line.Says).ShouldBe(("lioth", $"{run.Sheet.Step("ways")!.Say} Overruled: I am on the telephone with the site."));
        System.Text.Encoding.ASCII.GetString(paper.ToArray(), 0, 5).ShouldBe("%PDF-");
        (await Should.ThrowAsync<ApiProblem>(async () => await ilka.ReportOfAsync(99_999, Ct))).Message.ShouldContain("T-99999");
    }
}
