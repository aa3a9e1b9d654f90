using System.Net;
using Nailcrow.Client;
using Nailcrow.Client.People;
using Nailcrow.Core.People;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.People;

public sealed class PeopleTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private Task<NailcrowClient> AdminAsync() => service.AsAsync("admin");

    [Fact]
    public async Task Somebody_let_in_chooses_a_password_of_their_own_before_anything_else()
    {
        var letIn = await (await AdminAsync()).AddPersonAsync(new("norra", "Norra Selmark", null, [Role.Stores, Role.Lead]), Ct);
        letIn.Person.MustChange.ShouldBeTrue();
        var first = letIn.FirstPassword.ShouldNotBeNull();
        var norra = await SignedInAsync("norra", first);

        (await norra.MeAsync(Ct)).MustChange.ShouldBeTrue();
        (await RefusedAsync(() => norra.PeopleAsync(Ct))).Message.ShouldBe(
            "Your password was given to you by somebody else; choose one of your own first: on the console's page, or with "
                + "'nailcrow password' (PUT /api/me/password)."
        );
        (await RefusedAsync(() => norra.ChangePasswordAsync(first, first, Ct))).Message.ShouldBe(
            "That is the password you have now; choose another one."
        );
        await norra.ChangePasswordAsync(first, "seven grey kettles", Ct);

        var me = await norra.MeAsync(Ct);
        (me.Name, me.FullName, me.MustChange).ShouldBe(("norra", "Norra Selmark", false));
        me.Roles.ShouldBe([Role.Stores, Role.Lead]);
        (await norra.PeopleAsync(Ct)).People.ShouldContain(p => p.Name == "norra");
    }

    [Theory]
    [InlineData("ilka", "a-long-enough-one", Role.Engineer, "There is a 'ilka' already; names are given once.")]
    [InlineData("i1ka", "a-long-enough-one", Role.Engineer, "'i1ka' looks like 'ilka', who is somebody else; choose another name.")]
    [InlineData(
        "nai1crow",
        "a-long-enough-one",
        Role.Engineer,
        "'nai1crow' could be taken for the service itself ('nailcrow'); choose another name."
    )]
    [InlineData("venn", "short", Role.Engineer, "A password has 12 to 128 characters; this has 5.")]
    [InlineData(
        "venn",
        "qwerty123456",
        Role.Engineer,
        "That password is among those that are tried first; choose one that nobody else would."
    )]
    [InlineData("venn", "a-long-enough-one", null, "A person has at least one role; accepted: engineer, dispatcher, stores, lead, admin.")]
    public async Task A_person_who_cannot_be_let_in_is_refused_with_the_reason(string name, string password, Role? role, string reason)
    {
        var admin = await AdminAsync();

        var no = await RefusedAsync(() => admin.AddPersonAsync(new(name, "Somebody", password, role is { } r ? [r] : []), Ct));

        ((int)no.Status, no.Message).ShouldBe((422, reason));
    }

    [Fact]
    public async Task Only_an_admin_looks_after_people()
    {
        var lead = await service.AsAsync("lioth");
        Func<Task>[] all =
        [
            () => lead.AddPersonAsync(new("xavi", "x", null, [Role.Admin]), Ct),
            () => lead.PutRolesAsync("lioth", [Role.Admin], Ct),
            () => lead.RenamePersonAsync("ilka", "Somebody else", Ct),
            () => lead.GivePasswordAsync("ilka", null, Ct),
            () => lead.DisablePersonAsync("ilka", "because", Ct),
            () => lead.EnablePersonAsync("ilka", Ct),
            () => lead.PersonLeavesAsync("ilka", "because", Ct),
            () => lead.ComingsInAsync("ilka", Ct),
            () => lead.SecurityLogAsync(null, null, null, 10, Ct),
        ];

        foreach (var act in all)
            (await RefusedAsync(act)).Status.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task The_last_administrator_cannot_shut_themselves_out()
    {
        var admin = await AdminAsync();

        var asRole = await RefusedAsync(() => admin.PutRolesAsync("admin", [Role.Lead], Ct));
        var asPerson = await RefusedAsync(() => admin.DisablePersonAsync("admin", "tired", Ct));

        asRole.Status.ShouldBe(HttpStatusCode.Conflict);
        asRole.Message.ShouldBe(
            "admin is the last administrator who may come in, and has to keep the role: nobody could look after people any more. "
                + "Give another person the role admin first."
        );
        asPerson.Message.ShouldStartWith("admin is the last administrator who may come in, and has to be let in");
    }

    [Fact]
    public async Task Two_administrators_who_shut_each_other_out_at_once_leave_one()
    {
        // A service of their own: whoever is left would be an administrator beside 'admin' for every other test here.
        await using var own = await RunningService.StartPeopledAsync();
        await own.LetInAsync("mareth", Role.Admin);
        await own.LetInAsync("solvi", Role.Admin);
        var (mareth, solvi) = (await own.SignInAsync("mareth"), await own.SignInAsync("solvi"));
        await mareth.DisablePersonAsync("admin", "These two are all there are", Ct);
        own.NotRestartedBecause = "the administrator whom that asks may not come in";

        await Task.WhenAll(
            TryAsync(() => mareth.DisablePersonAsync("solvi", "first", Ct)),
            TryAsync(() => solvi.DisablePersonAsync("mareth", "first", Ct))
        );

        var left = (await (await own.SignInAsync("ilka")).PeopleAsync(Ct)).People.Where(p => p.Roles.Contains(Role.Admin));
        left.Count(p => p.DisabledAt is null).ShouldBe(1);
    }

    [Fact]
    public async Task Somebody_who_is_called_otherwise_keeps_the_name_that_the_record_knows()
    {
        await service.Service.LetInAsync("yrsa", Role.Engineer);

        var renamed = await (await AdminAsync()).RenamePersonAsync("yrsa", "Yrsa Holmgard", Ct);

        (renamed.Name, renamed.FullName).ShouldBe(("yrsa", "Yrsa Holmgard"));
        (await (await service.Service.SignInAsync("yrsa")).MeAsync(Ct)).FullName.ShouldBe("Yrsa Holmgard");
    }

    [Fact]
    public async Task Nobody_is_assigned_who_may_not_come_in()
    {
        await service.Service.LetInAsync("orla", Role.Engineer);
        var ticket = await service.OpenAsync();
        await (await AdminAsync()).DisablePersonAsync("orla", "Ill for a while", Ct);

        var (status, sentence) = await service.RefusedAsync("dorrik", ticket, new Core.Tickets.Planning.EngineerAssigned("orla"));

        status.ShouldBe(422);
        sentence.ShouldStartWith("'orla' may not come in any more; engineers: ");
        // Why is between her and who looks after people.
        (await (await service.AsAsync("dorrik")).PeopleAsync(Ct))
            .People.Single(p => p.Name == "orla")
            .DisabledBecause.ShouldBeNull();
        (await (await AdminAsync()).PeopleAsync(Ct)).People.Single(p => p.Name == "orla").DisabledBecause.ShouldBe("Ill for a while");
    }

    [Fact]
    public async Task Who_leaves_hands_over_first_and_what_they_wrote_stays_theirs()
    {
        await service.Service.LetInAsync("tove", Role.Engineer);
        var tove = await service.Service.SignInAsync("tove");
        var ticket = (await tove.ReportAsync(new("FSC-0203", "Amber lamp"), Ct)).Ticket;
        await tove.WriteAsync(ticket, new Core.Tickets.Planning.EngineerAssigned("tove"), Ct);
        var admin = await AdminAsync();

        (await admin.HoldsAsync("tove", Ct)).Tickets.Select(t => t.Number).ShouldBe([ticket]);
        (await RefusedAsync(() => admin.PersonLeavesAsync("tove", "To sea", Ct))).Message.ShouldBe(
            $"tove leads T-{ticket}. Hand the tickets over, and have stores take back or move the rest; "
                + "to keep somebody out at once, disable them instead."
        );
        // Who may let people in may not therefore plan.
        (await RefusedAsync(() => admin.HandOverAllAsync("tove", "ilka", null, Ct))).Status.ShouldBe(HttpStatusCode.Forbidden);
        var over = await (await service.AsAsync("dorrik")).HandOverAllAsync("tove", "ilka", "The key is at the gate.", Ct);
        over.Tickets.ShouldBe([ticket]);
        await admin.PersonLeavesAsync("tove", "To sea", Ct);

        (await (await service.AsAsync("ilka")).TicketAsync(ticket, Ct)).Head.ShouldBeGreaterThan(0);
        (await (await service.AsAsync("ilka")).JournalAsync(ticket, 0, Ct)).Entries.ShouldContain(e => e.By == "tove");
        (await RefusedAsync(() => service.Service.SignInAsync("tove"))).Message.ShouldBe("Name and password do not go together.");
    }

    [Fact]
    public async Task What_waits_for_somebody_who_is_shut_out_stands_on_the_desk_until_it_is_handed_over()
    {
        await service.Service.LetInAsync("gerda", Role.Engineer);
        var ticket = await service.OpenAsync();
        await service.WriteAsync("dorrik", ticket, new Core.Tickets.Planning.EngineerAssigned("gerda"));
        await (await AdminAsync()).DisablePersonAsync("gerda", "Lost the phone", Ct);
        var dorrik = await service.AsAsync("dorrik");

        var waits = (await dorrik.DeskAsync(Ct)).Engineers[0];
        (waits.Engineer, waits.Open, waits.Out).ShouldBe(("gerda", 1, true));
        await dorrik.HandOverAllAsync("gerda", "ilka", null, Ct);

        (await dorrik.DeskAsync(Ct)).Engineers.ShouldNotContain(e => e.Out);
    }

    [Fact]
    public async Task A_calendar_opens_nothing_once_its_owner_may_not_come_in()
    {
        await service.Service.LetInAsync("sunniva", Role.Engineer);
        var calendar = (await (await service.Service.SignInAsync("sunniva")).DayAsync("sunniva", Ct)).Calendar;
        using var http = service.Service.Http();
        (await http.GetStringAsync(calendar, Ct)).ShouldStartWith("BEGIN:VCALENDAR");

        await (await AdminAsync()).DisablePersonAsync("sunniva", "Lost the phone", Ct);

        (await http.GetAsync(calendar, Ct)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Nobody_is_not_found_and_no_reason_is_no_reason()
    {
        var admin = await AdminAsync();

        (await RefusedAsync(() => admin.DisablePersonAsync("nobody-here", "x", Ct))).Message.ShouldBe(
            "Nobody here is called 'nobody-here'."
        );
        (await RefusedAsync(() => admin.DisablePersonAsync("ilka", " ", Ct))).Message.ShouldBe(
            "Say why, in 1 to 400 characters: somebody will ask."
        );
        (await RefusedAsync(() => admin.EnablePersonAsync("ilka", Ct))).Message.ShouldBe("ilka may come in already.");
    }

    private async Task<NailcrowClient> SignedInAsync(string name, string password)
    {
        var client = new NailcrowClient(service.Service.Http(), TimeProvider.System);
        client.UseToken((await client.SignInAsync(name, password, Ct)).AccessToken);
        return client;
    }

    private static async Task TryAsync(Func<Task> act)
    {
        try
        {
            await act();
        }
        catch (ApiProblem)
        {
            // One of the two comes too late.
        }
    }

    private static Task<ApiProblem> RefusedAsync(Func<Task> act) => Should.ThrowAsync<ApiProblem>(act);
}
