using System.Reflection;
using System.Runtime.CompilerServices;
using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Rebuilds;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tests.Procedures;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;

namespace Nailcrow.Core.Tests.Tickets.Journal;

/// <summary>The table of docs/journal.md says who may write what; what runs says the same, for every kind and every role.</summary>
public sealed class WhoMayWriteTests
{
    private static readonly Role[] OnTickets = [Role.Engineer, Role.Dispatcher, Role.Stores, Role.Lead];

    /// <summary>Each kind with its row's <em>who</em>.</summary>
    private static IReadOnlyDictionary<string, string> Documented { get; } =
        File.ReadAllLines(Path.Combine(Shipped.Folder, "..", "docs", "journal.md"))
            .SkipWhile(line => line != "## The kinds")
            .TakeWhile(line => line != "## Putting right")
            .Where(line => line.StartsWith("| `", StringComparison.Ordinal))
            .Select(line => line.Split('|'))
            .SelectMany(cells => cells[1].Split(',').Select(kind => (Kind: kind.Trim(' ', '`'), Who: cells[3].Trim())))
            .ToDictionary(row => row.Kind, row => row.Who);

    public static TheoryData<string, Type> Kinds() =>
        [.. typeof(EntryBody).GetCustomAttributes<JsonDerivedTypeAttribute>().Select(a => ((string)a.TypeDiscriminator!, a.DerivedType))];

    [Theory, MemberData(nameof(Kinds))]
    public void Whoever_may_write_a_kind_stands_beside_it_in_the_table(string kind, Type type)
    {
        var who = Documented.GetValueOrDefault(kind).ShouldNotBeNull($"{kind} stands in no row");
        var body = (EntryBody)RuntimeHelpers.GetUninitializedObject(type); // who may write a kind does not hang on what is in it

        var told = OnTickets.Where(role => System.Text.RegularExpressions.Regex.IsMatch(who, $@"\b{Words.Of(role)}\b")).ToList();
        var expected =
            who.Contains("whoever", StringComparison.Ordinal) ? [.. OnTickets]
            : told.Count > 0 ? told
            : who == "the service" ? []
            : [.. OnTickets]; // nothing is said, or it is the step's role

        OnTickets.Where(role => body.Writers().Contains(role)).ShouldBe(expected);
        (body.ByServiceOnly() is not null).ShouldBe(who.StartsWith("the service", StringComparison.Ordinal));
        if (who != "the service")
            body.Writers().ShouldNotContain(Role.Admin); // who keeps the house writes in no ticket
    }

    [Theory]
    [InlineData("redfish")]
    [InlineData(" Syslog")]
    [InlineData("cloudevents")]
    public void Nobody_writes_in_a_machines_name(string source)
    {
        EntryBody[] words =
        [
            new SnapshotTaken(new Snapshot(DateTimeOffset.UnixEpoch, source, [], [])),
            new ReadingTaken("vault", Progress.Running, RebuildPhase.Rebuilding, source, 5),
            new EvidenceSeen(EvidenceKind.Alert, source, "all is well"),
        ];

        foreach (var body in words)
            Ruling
                .On(new Ticket(1001), FromOutside(body), Some.Noon)
                .ShouldBeOfType<Ruling.NotAllowed>()
                .Reason.ShouldBe(
                    $"What a machine says over {source} is kept by the service that hears it; have it asked (snapshot take, rebuild read). "
                        + "What you saw or typed has another source, such as person."
                );
    }

    private static Intent FromOutside(EntryBody body) =>
        new(Guid.CreateVersion7(), Some.Noon, 0, new Actor("ilka", OnTickets), body) { FromOutside = true };
}
