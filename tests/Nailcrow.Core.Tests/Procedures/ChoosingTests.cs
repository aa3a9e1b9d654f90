using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Risk;
using Nailcrow.Procedures;
using Nailcrow.Procedures.Sheets;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Which of the procedures that ship a ticket is worked by.</summary>
public class ChoosingTests
{
    private static readonly IReadOnlyList<Procedure> All = [.. Shipped.Names.Select(Shipped.Named)];

    [Theory]
    [InlineData(Loading.Front, SwapPower.Hot, "front-hot")]
    [InlineData(Loading.Front, SwapPower.Off, "front-off")]
    [InlineData(Loading.Drawer, SwapPower.Hot, "drawer-hot")]
    [InlineData(Loading.Drawer, SwapPower.Off, "drawer-off")]
    [InlineData(Loading.Top, SwapPower.Hot, "top-hot")]
    [InlineData(Loading.Top, SwapPower.Off, "top-off")]
    [InlineData(Loading.Inside, SwapPower.Off, "inside-off")]
    public void A_failed_drive_is_swapped_as_its_machine_wants_it(Loading loading, SwapPower swap, string procedure) =>
        Chosen(Some.Model with { Loading = loading, Swap = swap }, TicketFacts.Ordinary).ShouldBe(procedure);

    public static TheoryData<Loading, SwapPower> Machines =>
        [
            .. Enum.GetValues<Loading>()
                .SelectMany(l => Enum.GetValues<SwapPower>().Select(s => (l, s)))
                .Where(m => m is not (Loading.Inside, SwapPower.Hot)),
        ];

    [Theory, MemberData(nameof(Machines))]
    public void Every_way_in_which_redundancy_comes_back_has_its_procedure_on_every_kind_of_machine(Loading loading, SwapPower swap)
    {
        var machine = Some.Model with { Loading = loading, Swap = swap, Growth = Growth.Prompted };
        var releases = machine with { ReleaseBeforePull = true, NextWhilePreparing = true };
        var mirror = machine with { Rows = 1, Columns = 2, RebuildRuns = RebuildRuns.OperatingSystem };
        var fault = TicketFacts.Ordinary;

        Chosen(machine, fault with { Job = JobKind.Early }).ShouldBe("early");
        Chosen(machine, fault with { Job = JobKind.Growth, Drives = 4 }).ShouldBe("growth");
        Chosen(machine, fault with { Drives = 2 }).ShouldBe("several");
        Chosen(machine, fault with { SpareTookOver = true }).ShouldBe("spare-stepped-in");
        Chosen(releases, fault with { Drives = 3 }).ShouldBe("released-first");
        Chosen(machine, fault with { Help = SwapHelp.TooManyLost }).ShouldBe("too-many-lost");
        Chosen(mirror, fault).ShouldBe(loading == Loading.Top ? $"top-{Words.Of(swap)}" : "system-mirror");
    }

    [Theory, MemberData(nameof(Machines))]
    public void Whatever_is_opened_for_the_bay_is_named_as_what_it_is(Loading loading, SwapPower swap)
    {
        string[] wanted =
        [
            .. loading switch
            {
                Loading.Front => [],
                Loading.Drawer => ["the drawer"],
                Loading.Top => ["the chassis", "the cover"],
                _ => new[] { "the case" },
            },
            .. swap == SwapPower.Off ? ["power"] : Array.Empty<string>(),
        ];
        var machine = Some.Model with { Loading = loading, Swap = swap, SlidesOut = true, Bezel = Bezel.None };

        foreach (var (job, drives) in new[] { (JobKind.Fault, 1), (JobKind.Early, 1), (JobKind.Fault, 2) })
        {
            var facts = Facts(machine, TicketFacts.Ordinary with { Job = job, Drives = drives });
            var sheet = SheetCompiler.Compile(Choosing.For(All, facts)[0], facts, Guid.Empty).Is(out var made, out var refused)
                ? made
                : throw new InvalidDataException(refused);

            sheet.Steps.Select(s => s.Opens).OfType<string>().Distinct().ShouldBe(wanted, ignoreOrder: true);
            sheet.Steps.Select(s => s.Closes).OfType<string>().Distinct().ShouldBe(wanted, ignoreOrder: true);
        }
    }

    private static string Chosen(ApplianceModel model, TicketFacts ticket) =>
        Choosing.For(All, Facts(model, ticket)) is [var first, ..] ? first.Id : "none";

    private static SheetFacts Facts(ApplianceModel model, TicketFacts ticket) =>
        SampleFacts.For(All[0], model) with
        {
            Ticket = ticket,
            Drives = [.. Enumerable.Range(1, ticket.Drives).Select(d => new SheetDrive($"{d}", $"OLD000{d}X", $"sd{d}", $"NEW000{d}Y"))],
        };
}
