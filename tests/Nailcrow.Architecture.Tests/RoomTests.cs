using ArchUnitNET.Domain;
using ArchUnitNET.Domain.Extensions;
using ArchUnitNET.Loader;
using static ArchUnitNET.Fluent.ArchRuleDefinition;
using Assembly = System.Reflection.Assembly;

namespace Nailcrow.Architecture.Tests;

public class RoomTests
{
    private static readonly Assembly Core = typeof(Nailcrow.Core.Tickets.Ticket).Assembly;
    private static readonly Assembly Procedures = typeof(Nailcrow.Procedures.Procedure).Assembly;
    private static readonly Assembly Store = typeof(Nailcrow.Store.Database).Assembly;
    private static readonly Assembly Appliances = typeof(Nailcrow.Appliances.IApplianceLink).Assembly;
    private static readonly Assembly Documents = typeof(Nailcrow.Documents.VisitCalendar).Assembly;
    private static readonly Assembly Client = typeof(Nailcrow.Client.NailcrowClient).Assembly;
    private static readonly Assembly Service = Assembly.Load("nailcrow-service");
    private static readonly Assembly Cli = Assembly.Load("nailcrow");
    private static readonly Assembly StandIn = Assembly.Load("nailcrow-standin");

    private static readonly ArchUnitNET.Domain.Architecture Built = new ArchLoader()
        .LoadAssemblies(Core, Procedures, Store, Appliances, Documents, Client, Service, Cli, StandIn)
        .Build();

    public static TheoryData<string, string[]> Arrows =>
        new()
        {
            { "Nailcrow.Core", [] },
            { "Nailcrow.Procedures", ["Nailcrow.Core"] },
            { "Nailcrow.Store", ["Nailcrow.Core"] },
            { "Nailcrow.Appliances", ["Nailcrow.Core"] },
            { "Nailcrow.Documents", ["Nailcrow.Core"] },
            { "Nailcrow.Client", ["Nailcrow.Core"] },
            { "Nailcrow.Cli", ["Nailcrow.Core", "Nailcrow.Procedures", "Nailcrow.Client"] },
            { "Nailcrow.StandIn", ["Nailcrow.Core"] },
            {
                "Nailcrow.Service",
                ["Nailcrow.Core", "Nailcrow.Procedures", "Nailcrow.Store", "Nailcrow.Appliances", "Nailcrow.Documents", "Nailcrow.Client"]
            },
        };

    [Theory, MemberData(nameof(Arrows))]
    public void Arrows_between_floors_go_one_way(string floor, string[] mayKnow)
    {
        var own = Built
            .Types.Where(t => t.Namespace.FullName == floor || t.Namespace.FullName.StartsWith(floor + ".", StringComparison.Ordinal))
            .ToList();
        own.ShouldNotBeEmpty();

        var known = own.SelectMany(t => t.Dependencies)
            .Select(d => Floor(d.Target))
            .OfType<string>()
            .Distinct()
            .Where(f => f != floor && !mayKnow.Contains(f));

        known.ShouldBeEmpty();
    }

    /// <summary>
    /// Each room of Core knows only those that stand before it here; Tickets is the hub, which knows all and may be known by all
    /// but the first.
    /// </summary>
    private static readonly string[] Rooms =
    [
        "Terms",
        "People",
        "Appliances",
        "Procedures",
        "Returns",
        "Intake",
        "Rebuilds",
        "Swaps",
        "Reports",
    ];

    // These say what the world is like; that there are tickets is nothing to them.
    private static readonly string[] WithoutTickets = ["Terms", "People", "Appliances"];

    public static TheoryData<string> EveryRoom => [.. Rooms];

    [Theory, MemberData(nameof(EveryRoom))]
    public void Arrows_between_the_rooms_of_the_job_go_one_way_and_tickets_ties_them_together(string room)
    {
        var mayKnow = Rooms.TakeWhile(r => r != room).ToList();
        if (!WithoutTickets.Contains(room))
            mayKnow.Add("Tickets");

        Built
            .Types.Where(t => Room(t) == room)
            .SelectMany(t => t.Dependencies.Select(d => (From: t, To: Room(d.Target), Target: d.Target)))
            .Where(d => d.To is not null && d.To != room && !mayKnow.Contains(d.To))
            .Select(d => $"{d.From.FullName} knows {d.Target.FullName}")
            .Distinct()
            .ShouldBeEmpty();
    }

    [Fact]
    public void Every_room_of_the_job_stands_in_that_order() =>
        Built.Types.Select(Room).OfType<string>().Distinct().Order().ShouldBe(Rooms.Append("Tickets").Order());

    [Fact]
    public void The_job_itself_needs_nothing_but_the_framework() =>
        Core.GetReferencedAssemblies()
            .Select(a => a.Name)
            .Where(name => !name!.StartsWith("System.", StringComparison.Ordinal))
            .ShouldBeEmpty();

    [
        Theory,
        InlineData("Microsoft.EntityFrameworkCore"),
        InlineData("Microsoft.AspNetCore"),
        InlineData("System.Net.Http"),
        InlineData("System.IO.File"),
        InlineData("Spectre.Console")
    ]
    public void The_job_itself_does_no_input_or_output(string outside) =>
        Types()
            .That()
            .ResideInAssembly(Core)
            .Should()
            .NotDependOnAnyTypesThat()
            .HaveFullNameContaining(outside)
            .WithoutRequiringPositiveResults()
            .HasNoViolations(Built)
            .ShouldBeTrue();

    [Fact]
    public void The_job_itself_has_no_clock_of_its_own()
    {
        string[] clocks =
        [
            "System.DateTimeOffset::get_UtcNow",
            "System.DateTimeOffset::get_Now",
            "System.DateTime::get_UtcNow",
            "System.DateTime::get_Now",
            "System.DateTime::get_Today",
            "System.Diagnostics.Stopwatch",
        ];

        var asked = Built
            .MethodMembers.Where(m => Floor(m.DeclaringType) == "Nailcrow.Core")
            .Where(m => m.GetCalledMethods().Any(c => clocks.Any(c.FullName.Contains)))
            .Select(m => m.FullName);

        asked.ShouldBeEmpty();
    }

    [Fact]
    public void Every_kind_of_entry_is_sealed_and_known_by_a_word()
    {
        var kinds = typeof(Nailcrow.Core.Tickets.Journal.EntryBody)
            .GetCustomAttributes(typeof(System.Text.Json.Serialization.JsonDerivedTypeAttribute), false)
            .Cast<System.Text.Json.Serialization.JsonDerivedTypeAttribute>()
            .Select(a => a.DerivedType)
            .ToList();
        var written = Core.GetTypes().Where(t => t.IsSubclassOf(typeof(Nailcrow.Core.Tickets.Journal.EntryBody)) && !t.IsAbstract).ToList();

        // What cannot be read, or was not so, has the word it was written under, and is never written.
        written.Except(kinds).Select(t => t.Name).ShouldBe(["Unreadable", "Struck"], ignoreOrder: true);
        written.Where(t => !t.IsSealed).ShouldBeEmpty();
    }

    [Fact]
    public void No_room_is_called_after_what_it_is_made_of()
    {
        string[] vague = ["Helpers", "Utils", "Common", "Managers", "Misc", "Shared"];

        new[] { Core, Procedures, Store, Appliances, Documents, Client, Service, Cli, StandIn }
            .SelectMany(a => a.GetTypes())
            .Select(t => t.Namespace ?? "")
            .Distinct()
            .Where(n => n.StartsWith("Nailcrow", StringComparison.Ordinal) && n.Split('.').Any(vague.Contains))
            .ShouldBeEmpty();
    }

    private static string? Room(IType type) => type.Namespace?.FullName.Split('.') is ["Nailcrow", "Core", var room, ..] ? room : null;

    private static string? Floor(IType type)
    {
        var parts = type.Namespace?.FullName.Split('.') ?? [];
        return parts is ["Nailcrow", var floor, ..] ? $"Nailcrow.{floor}" : null;
    }
}
