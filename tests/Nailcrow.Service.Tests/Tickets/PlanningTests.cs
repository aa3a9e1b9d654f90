using System.Net;
using System.Text;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Drives;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Planning;

namespace Nailcrow.Service.Tests.Tickets;

public sealed class PlanningTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private async Task<ImportResult> ImportAsync(string kind, string csv, bool dryRun = false, bool all = false) =>
        await (await service.AsAsync("dorrik")).ImportAsync(
            kind,
            new MemoryStream(Encoding.UTF8.GetPreamble().Concat(Encoding.UTF8.GetBytes(csv)).ToArray()),
            dryRun,
            all,
            Ct
        );

    [Fact]
    public async Task A_list_is_checked_first_and_every_bad_row_is_told_with_its_line_and_reason()
    {
        const string csv =
            "asset;serial;model;site;location;arrays\n"
            + "IMP-1;S-1;brackmere-b12;Corrin Deep Archive;\"Hall; rack \"\"4\"\"\";vault:raid6:6:8TB\n"
            + "IMP-2;S-2;no-model;Corrin Deep Archive;Rack;\n"
            + "IMP-3;S-3;brackmere-b12;Nowhere;Rack;\n"
            + "imp-1;S-4;brackmere-b12;Corrin Deep Archive;Rack;\n"
            + "IMP-5;S-5;brackmere-b12;Corrin Deep Archive;Rack;vault:raid9:6\n";

        var checkedOnly = await ImportAsync("appliances", csv, dryRun: true);

        (checkedOnly.Rows, checkedOnly.Good, checkedOnly.Imported).ShouldBe((5, 1, 0));
        checkedOnly
            .Problems.Select(p => (p.Line, p.Reason.Split(';')[0]))
            .ShouldBe([
                (3L, "model is 'no-model', which is not known"),
                (4, "site is 'Nowhere', which is no site here"),
                (5, "IMP-1 is in this file already"),
                (6, "arrays has 'vault:raid9:6'"),
            ]);
        (await ImportAsync("appliances", csv, all: true)).Imported.ShouldBe(0);
        (await ImportAsync("appliances", csv)).Imported.ShouldBe(1);
        var known = (await (await service.AsAsync("dorrik")).ApplianceAsync("IMP-1", Ct)).Appliance;
        (known.Location, known.Arrays?[0]).ShouldBe(("Hall; rack \"4\"", new ArrayDesign("vault", ArrayLevel.Raid6, 6, 8_000_000_000_000)));
    }

    [Theory]
    [InlineData("5\0", "13.4", "latitude has a character U+0000 in it, which no text has; send it without.")]
    [InlineData("NaN", "13.4", "latitude is 'NaN'; a number with a decimal point is expected.")]
    [InlineData("52.1", "-Infinity", "longitude is '-Infinity'; a number with a decimal point is expected.")]
    [InlineData("52.1", "1e999", "longitude is '1e999'; a number with a decimal point is expected.")]
    [InlineData("152.1", "13.4", "latitude is -90 to 90, longitude -180 to 180 degrees.")]
    public async Task A_place_that_is_nowhere_on_earth_is_a_bad_row(string latitude, string longitude, string sentence) =>
        (
            await ImportAsync(
                "sites",
                $"site,customer,address,zone,latitude,longitude\nNowhere at all,Trust,Shelf 1,UTC,{latitude},{longitude}\n"
            )
        )
            .Problems.ShouldHaveSingleItem()
            .Reason.ShouldEndWith(sentence);

    [Theory]
    [InlineData("serial,size\nA,8TB\n", "'model' is missing. Needed: serial, model, size;")]
    [InlineData("serial,model,size,colour\nA,B,8TB,red\n", "The column 'colour' is not known.")]
    [InlineData("", "'serial' is missing.")]
    public async Task A_file_that_is_no_list_is_refused_whole(string csv, string sentence) =>
        (await Should.ThrowAsync<ApiProblem>(() => ImportAsync("drives", csv))).Message.ShouldContain(sentence);

    [Fact]
    public async Task What_is_exported_can_be_imported_again_and_a_spreadsheet_runs_nothing_in_it()
    {
        await ImportAsync(
            "sites",
            "site,customer,address,zone,access,hours,holidays,latitude,longitude\n=HYPERLINK(1),Trust,Shelf "
                + "1,Europe/Oslo,,Mo-Fr 08:00-16:00,2026-12-25,60.1,5.2\n"
        );
        using var into = new MemoryStream();

        await (await service.AsAsync("dorrik")).ExportAsync("sites", into, Ct);

        Encoding.UTF8.GetString(into.ToArray()).ShouldContain("\"'=HYPERLINK(1)\",Trust,Shelf 1,Europe/Oslo");
        (await ImportAsync("sites", Encoding.UTF8.GetString(into.ToArray()), dryRun: true)).Bad.ShouldBe(0);
    }

    [Fact]
    public async Task A_drive_is_found_by_its_last_characters_and_its_life_is_on_one_page()
    {
        await ImportAsync("drives", "serial,model,size,asset,bay\nP8LIFE00XY7Q,Pellworth P8-K,8TB,FSC-0410,4\n");
        var ilka = await service.AsAsync("ilka");
        (await ilka.FindDrivesAsync("0xy7q", Ct))
            .Drives.Select(d => (d.Serial, d.Asset, d.Bay))
            .ShouldBe([("P8LIFE00XY7Q", "FSC-0410", "4")]);
        var ticket = await service.OpenAsync("FSC-0410", "4");
        await service.WriteAsync(
            "ilka",
            ticket,
            new SnapshotTaken(
                new(DateTimeOffset.UtcNow, "person", [new("4", BayRole.Dropped, DriveHealth.Faulted, Serial: "P8LIFE00XY7Q")], [])
            )
        );
        await service.WriteAsync("ilka", ticket, new DriveWiped("P8LIFE00XY7Q", "overwritten once"));

        var life = await ilka.DriveAsync("p8life00xy7q", Ct);

        life.Events.Select(e => e.Sentence).ShouldBe(["In bay 4 of FSC-0410: dropped, reads faulted.", "Wiped: overwritten once"]);
    }

    [Fact]
    public async Task The_same_serial_in_two_machines_is_a_discrepancy()
    {
        SnapshotTaken Seen() =>
            new(new(DateTimeOffset.UtcNow, "person", [new("1", BayRole.Spare, DriveHealth.Good, Serial: "P8TWICE0001")], []));
        await service.WriteAsync("ilka", await service.OpenAsync("FSC-0401", "1"), Seen());
        var second = await service.OpenAsync("FSC-0402", "1");

        await service.WriteAsync("ilka", second, Seen());

        (await (await service.AsAsync("ilka")).TicketAsync(second, Ct))
            .Discrepancies.Select(d => d.Sentence)
            .ShouldHaveSingleItem()
            .ShouldStartWith("P8TWICE0001 is also recorded in bay 1 of FSC-0401, by T-");
        (await (await service.AsAsync("ilka")).DriveAsync("P8TWICE0001", Ct)).Places.Count.ShouldBe(2);
    }

    [Fact]
    public async Task What_to_bring_is_judged_and_what_is_taken_all_the_same_carries_a_name_and_a_reason()
    {
        await ImportAsync(
            "drives",
            "serial,model,size,depot,used-in\nC8BRING001,Cindral C8-R,8001563222016,Main,\nH12BRING02,Hask "
                + "H12-A,12000138625024,Main,\nCTBRING003,Cindral C12T,12000138625024,Main,FSC-0431\nCTBRING004,Cindral "
                + "C12T,12000138625024,Main,\n"
        );
        var ticket = await service.OpenAsync("FSC-0203", "5");

        var bring = await (await service.AsAsync("sefa")).BringAsync(ticket, Ct);

        string[] ours = ["C8BRING001", "H12BRING02", "CTBRING003", "CTBRING004"];
        bring
            .Parts.Where(p => ours.Contains(p.Part.Serial))
            .Select(p => (p.Part.Serial, p.Fit))
            .ShouldBe(
                [
                    ("CTBRING004", Fit.Fits),
                    ("H12BRING02", Fit.FitsWithWarnings),
                    ("C8BRING001", Fit.DoesNotFit),
                    ("CTBRING003", Fit.DoesNotFit),
                ],
                ignoreOrder: true
            );
        var warned = new PartReserved("H12BRING02", "Hask H12-A", 12000138625024, "Main");
        (await service.RefusedAsync("sefa", ticket, warned)).Sentence.ShouldEndWith(
            "Take another part, or say why this one is taken all the same."
        );
        (
            await service.RefusedAsync("sefa", ticket, warned with { Serial = "C8BRING001", Model = "Cindral C8-R", Bytes = 8001563222016 })
        ).Sentence.ShouldStartWith("C8BRING001 does not fit: ");
        await service.WriteAsync("sefa", ticket, warned with { OverruledBecause = "It is the only one within two days." });
        (await (await service.AsAsync("sefa")).TicketAsync(ticket, Ct)).Part?.OverruledBecause.ShouldBe(
            "It is the only one within two days."
        );
    }

    [Fact]
    public async Task The_desk_tells_what_comes_first_and_a_visit_is_in_the_engineers_calendar()
    {
        var ticket = await service.OpenAsync("FSC-0422", "1");
        var dorrik = await service.AsAsync("dorrik");
        (await dorrik.DeskAsync(Ct))
            .Lines.Single(l => l.Ticket.Number == ticket)
            .Candidates.Select(c => c.Engineer)
            .ShouldBe(["ilka", "tamsel"], ignoreOrder: true);
        await service.WriteAsync("dorrik", ticket, new EngineerAssigned("tamsel"));
        var from = DateTimeOffset.UtcNow.AddHours(5);
        await service.WriteAsync("dorrik", ticket, new VisitPlanned(from, from.AddHours(2)));

        var day = await (await service.AsAsync("tamsel")).DayAsync("tamsel", Ct);

        day.Stops[0].Ticket.Number.ShouldBe(ticket);
        using var http = service.Service.Http();
        var feed = await http.GetStringAsync(day.Calendar, Ct);
        feed.ShouldContain($"UID:visit-{ticket}@nailcrow");
        feed.ShouldContain($"DTSTART:{from.UtcDateTime:yyyyMMddTHHmmss}Z");
        (await http.GetAsync(day.Calendar.Replace(".ics", "x.ics", StringComparison.Ordinal), Ct)).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await (await service.AsAsync("ilka")).DayAsync("tamsel", Ct)).Calendar.ShouldBeEmpty();
    }

    [Fact]
    public async Task Any_two_snapshots_are_compared_and_a_pull_confirms_which_bay_is_which()
    {
        var ticket = await service.OpenAsync("FSC-0409", "2");
        SnapshotTaken Seen(string serial) =>
            new(new(DateTimeOffset.UtcNow, "person", [new("2", BayRole.Member, DriveHealth.Good, "sdb", serial)], []));
        await service.WriteAsync("ilka", ticket, Seen("P8MAP00001"));
        var dorrik = await service.AsAsync("dorrik");
        (await dorrik.BayMapAsync("FSC-0409", Ct)).Warning.ShouldNotBeNull().ShouldStartWith("Nobody has confirmed this map yet");
        await service.WriteAsync("ilka", ticket, new DrivePulled("2", "P8MAP00001"));
        await service.WriteAsync("ilka", ticket, Seen("P8MAP00002"));

        var taken = (await dorrik.SnapshotsAsync("FSC-0409", Ct)).Snapshots.Select(s => $"T-{s.Ticket}/{s.Seq}").ToList();

        (await dorrik.CompareAsync(taken[1], taken[0], Ct))
            .Changes.Select(c => c.Sentence)
            .ShouldBe(["Bay 2 held P8MAP00001 and now holds P8MAP00002."]);
        (await dorrik.BayMapAsync("FSC-0409", Ct)).Bays.Single(b => b.Bay == "2").Confirmed.ShouldBe("pull");
        (await Should.ThrowAsync<ApiProblem>(() => dorrik.CompareAsync("T-1/1", taken[0], Ct))).Message.ShouldBe(
            "'T-1/1' is no snapshot; name it by its ticket and entry, as T-1002/5."
        );
    }
}
