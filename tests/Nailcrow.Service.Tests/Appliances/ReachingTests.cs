using System.Net;
using Nailcrow.Client;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Tickets;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Appliances;

/// <summary>Machines that ask who one is and show a certificate they signed themselves, as most that exist do.</summary>
public sealed class ReachingTests : IAsyncLifetime
{
    private const string Asset = "FSC-0107";

    private RunningStandIn _machine = null!; // xUnit calls InitializeAsync before any test
    private RunningService _service = null!;

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _machine = await RunningStandIn.GuardedAsync();
        _service = await RunningService.StartPeopledAsync(_machine.TlsAddress);
    }

    public async ValueTask DisposeAsync()
    {
        await _service.DisposeAsync();
        await _machine.DisposeAsync();
    }

    private Task<NailcrowClient> LeadAsync() => _service.SignInAsync("lioth");

    private static async Task<(int Status, string Sentence)> RefusedAsync(Func<Task> act)
    {
        var no = await Should.ThrowAsync<ApiProblem>(act);
        return ((int)no.Status, no.Message);
    }

    private static MachineSignInAsk Right => new("service", SignInWay.Session, RunningStandIn.MachineSecret);

    private async Task LetInAsync(NailcrowClient lead)
    {
        // A machine that is asked on a busy day may not answer at once.
        while ((await lead.AccessAsync(Asset, Ct)).Offered is null)
            await lead.TryMachineAsync(Asset, Ct);
        await lead.TrustAsync(Asset, _machine.Certificate, Ct);
        await lead.GiveSignInAsync(Asset, Right, Ct);
    }

    [Fact]
    public async Task A_machine_is_come_into_step_by_step_and_each_try_says_what_is_still_missing()
    {
        var lead = await LeadAsync();

        var first = await lead.TryMachineAsync(Asset, Ct);
        first.Ok.ShouldBeFalse();
        first.Steps[^1].Came.ShouldContain("shows a certificate that nobody has looked at yet");
        var offered = (await lead.AccessAsync(Asset, Ct)).Offered.ShouldNotBeNull();
        offered.Pairs.Replace(":", "", StringComparison.Ordinal).ShouldBe(_machine.Certificate);

        await lead.TrustAsync(Asset, offered.Pairs, Ct);
        (await lead.TryMachineAsync(Asset, Ct)).Steps[^1].Came.ShouldContain("asks who one is, and no sign-in is given for it");

        await lead.GiveSignInAsync(Asset, Right with { Secret = "not it" }, Ct);
        (await lead.TryMachineAsync(Asset, Ct)).Steps[^1].Came.ShouldContain("does not let 'service' in");

        var access = await lead.GiveSignInAsync(Asset, Right, Ct);
        var last = await lead.TryMachineAsync(Asset, Ct);
        last.Ok.ShouldBeTrue();
        last.Steps.Single(s => s.What == "What is made of it")
            .Came.ShouldStartWith("12 bays, 1 empty; vault (raid6, whole, 6 of 6 members)");
        (access.SignIn?.Name, access.SignIn?.By, access.Trusted?.By, access.Offered).ShouldBe(("service", "lioth", "lioth", null));

        (await (await _service.SignInAsync("ilka")).BaysAsync(Asset, Ct)).Snapshot.Bays.Count.ShouldBe(12);
    }

    [Fact]
    public async Task After_a_restart_it_is_come_into_as_before_and_another_certificate_waits_for_a_yes()
    {
        await LetInAsync(await LeadAsync());
        await using var again = await _service.StartsAnewAsync();
        var lead = await again.SignInAsync("lioth");
        (await lead.BaysAsync(Asset, Ct)).Snapshot.Bays.Count.ShouldBe(12);

        var other = (await _machine.HandAsync("new-certificate")).Split(' ')[^1].TrimEnd('.');
        // What is open already goes on; what is opened anew is not.
        await using var third = await again.StartsAnewAsync();
        lead = await third.SignInAsync("lioth");

        var (status, sentence) = await RefusedAsync(() => lead.BaysAsync(Asset, Ct));
        (status, sentence.Contains("shows another certificate than the one somebody said yes to", StringComparison.Ordinal)).ShouldBe(
            (502, true)
        );
        var neither = other[..^1] + (other[^1] == '0' ? '1' : '0');
        (await RefusedAsync(() => lead.TrustAsync(Asset, neither, Ct))).Sentence.ShouldContain("showed another certificate last: ");
        await lead.TrustAsync(Asset, other, Ct);
        await lead.TrustAsync(Asset, other, Ct); // said twice
        (await lead.BaysAsync(Asset, Ct)).Snapshot.Bays.Count.ShouldBe(12);
    }

    [Fact]
    public async Task Whoever_puts_an_address_right_does_not_get_what_is_sent_there()
    {
        var lead = await LeadAsync();
        await LetInAsync(lead);
        await using var theirs = await RunningStandIn.GuardedAsync();
        var dorrik = await _service.SignInAsync("dorrik");
        var known = await dorrik.ApplianceAsync(Asset, Ct);

        // To another machine with TLS: its certificate is not the one that was looked at.
        var moved = await dorrik.ReplaceMachineAsync(known.Appliance with { Address = theirs.TlsAddress.ToString() }, known.Version, Ct);
        (await RefusedAsync(() => dorrik.BaysAsync(Asset, Ct))).Sentence.ShouldContain("shows another certificate");
        // To one without: the sign-in was given for another place.
        await dorrik.ReplaceMachineAsync(known.Appliance with { Address = theirs.Address.ToString() }, moved.Version, Ct);
        (await RefusedAsync(() => dorrik.BaysAsync(Asset, Ct))).Sentence.ShouldContain(
            $"is not signed in to: its sign-in was given for {_machine.TlsAddress.GetLeftPart(UriPartial.Authority)}; give it anew"
        );
    }

    [Fact]
    public async Task Who_may_not_neither_sees_nor_changes_how_it_is_come_into()
    {
        foreach (var name in new[] { "ilka", "dorrik", "sefa" })
        {
            var person = await _service.SignInAsync(name);
            foreach (
                var act in new Func<Task>[]
                {
                    () => person.AccessAsync(Asset, Ct),
                    () => person.GiveSignInAsync(Asset, Right, Ct),
                    () => person.TakeSignInAwayAsync(Asset, Ct),
                    () => person.TrustAsync(Asset, _machine.Certificate, Ct),
                }
            )
                (await RefusedAsync(act)).Status.ShouldBe((int)HttpStatusCode.Forbidden);
            // Whether it can be read is everybody's business.
            (await person.TryMachineAsync(Asset, Ct)).Ok.ShouldBeFalse();
        }
    }

    [Theory]
    [InlineData("", "x", null, "A name to sign in by has 1 to 100 characters, and no colon.")]
    [InlineData("a:b", "x", null, "A name to sign in by has 1 to 100 characters, and no colon.")]
    [InlineData("service", null, null, "Give either the secret, or the file it is in.")]
    [InlineData("service", "x", "y", "Give either the secret, or the file it is in.")]
    [InlineData("service", "", null, "A secret has 1 to 200 characters that one can type.")]
    [InlineData("service", null, "key", "The folder for secrets has no file 'key' that can be read, with up to 1000 bytes.")]
    [InlineData("service", null, "../nailcrow.db", "'../nailcrow.db' is no file in the folder for secrets; name it without a path.")]
    [InlineData("service", null, "a\u001bb", "'a␛b' is no file in the folder for secrets; name it without a path.")]
    [InlineData("service", null, "..", "'..' is no file in the folder for secrets; name it without a path.")]
    public async Task A_sign_in_that_cannot_be_is_refused_with_what_would_be_accepted(
        string name,
        string? secret,
        string? file,
        string says
    )
    {
        var lead = await LeadAsync();

        (await RefusedAsync(() => lead.GiveSignInAsync(Asset, new(name, SignInWay.Basic, secret, file), Ct))).ShouldBe((422, says));
        (await RefusedAsync(() => lead.TakeSignInAwayAsync(Asset, Ct))).ShouldBe((404, $"{Asset} has no sign-in; it is asked as anybody."));
        (await RefusedAsync(() => lead.TrustAsync(Asset, "abc", Ct))).ShouldBe(
            (422, "'abc' is no SHA-256: 64 hexadecimal digits, with or without colons.")
        );
        (await RefusedAsync(() => lead.TrustAsync(Asset, new string('a', 64), Ct))).ShouldBe(
            (409, $"{Asset} has shown no certificate that waits for a yes; try it first.")
        );
        (await RefusedAsync(() => lead.TryMachineAsync("FSC-9999", Ct))).Status.ShouldBe(404);
    }

    [Fact]
    public async Task A_secret_in_a_file_is_read_at_each_use_and_one_that_is_gone_is_told()
    {
        var lead = await LeadAsync();
        await LetInAsync(lead);
        var file = Path.Combine(Directory.CreateDirectory(Path.Combine(_service.Folder, "secrets")).FullName, "reader");
        await File.WriteAllTextAsync(file, $"{RunningStandIn.MachineSecret}\n", Ct);
        await lead.GiveSignInAsync(Asset, new("service", SignInWay.Basic, null, "reader"), Ct);
        (await lead.BaysAsync(Asset, Ct)).Snapshot.Bays.Count.ShouldBe(12);

        await File.WriteAllTextAsync(file, "changed\n", Ct);
        (await RefusedAsync(() => lead.BaysAsync(Asset, Ct))).Sentence.ShouldContain("does not let 'service' in");
        File.Delete(file);
        (await RefusedAsync(() => lead.BaysAsync(Asset, Ct))).Sentence.ShouldContain(
            "is not signed in to: its secret is in the file 'reader', which cannot be read."
        );
        Directory.Delete(Path.GetDirectoryName(file)!, recursive: true);
    }

    [Fact]
    public async Task Whose_certificate_waits_for_a_yes_is_listed_for_whoever_may_say_it()
    {
        var lead = await LeadAsync();
        (await lead.WaitingMachinesAsync(null, Ct)).Assets.ShouldBeEmpty();
        while ((await lead.AccessAsync(Asset, Ct)).Offered is null)
            await lead.TryMachineAsync(Asset, Ct);

        (await lead.WaitingMachinesAsync(null, Ct)).Assets.ShouldBe([Asset]);
        (await lead.WaitingMachinesAsync(Asset, Ct)).Assets.ShouldBeEmpty();
        var ilka = await _service.SignInAsync("ilka");
        (await RefusedAsync(() => ilka.WaitingMachinesAsync(null, Ct))).Status.ShouldBe((int)HttpStatusCode.Forbidden);
        await lead.TrustAsync(Asset, _machine.Certificate, Ct);
        (await lead.WaitingMachinesAsync(null, Ct)).Assets.ShouldBeEmpty();

        // Another machine answers at its address for a while; when it answers itself again, nobody has to say anything.
        await using var other = await RunningStandIn.GuardedAsync(seed: 8);
        await MoveAsync(other.TlsAddress);
        while ((await lead.AccessAsync(Asset, Ct)).Offered is null)
            await lead.TryMachineAsync(Asset, Ct);
        await MoveAsync(_machine.TlsAddress);
        await lead.TryMachineAsync(Asset, Ct);
        (await lead.AccessAsync(Asset, Ct)).Offered.ShouldBeNull();
        (await lead.WaitingMachinesAsync(null, Ct)).Assets.ShouldBeEmpty();

        async Task MoveAsync(Uri to)
        {
            var known = await lead.ApplianceAsync(Asset, Ct);
            await lead.ReplaceMachineAsync(known.Appliance with { Address = to.ToString() }, known.Version, Ct);
        }
    }

    [Fact]
    public async Task The_secret_is_nowhere_to_be_read_and_every_change_is_in_the_security_log()
    {
        var lead = await LeadAsync();
        await LetInAsync(lead);
        await lead.BaysAsync(Asset, Ct);
        var known = await lead.ApplianceAsync(Asset, Ct);
        var admin = await _service.SignInAsync("admin");
        using var list = new MemoryStream();
        await admin.ExportAsync("appliances", list, Ct);
        await lead.TakeSignInAwayAsync(Asset, Ct);

        (await admin.SecurityLogAsync(null, null, null, 20, Ct))
            .Lines.Where(l => l.About == Asset)
            .Select(l => (l.By, l.What))
            .ShouldBe([
                ("lioth", Core.People.Log.SecurityEvent.MachineSignInTakenAway),
                ("lioth", Core.People.Log.SecurityEvent.MachineSignInGiven),
                ("lioth", Core.People.Log.SecurityEvent.MachineTrusted),
            ]);
        foreach (var file in RunningService.KeptIn(_service.Folder).Where(f => !f.EndsWith("-shm", StringComparison.Ordinal)))
            System
                .Text.Encoding.Latin1.GetString(await ReadAsync(file))
                .ShouldNotContain(RunningStandIn.MachineSecret, customMessage: file);
        System.Text.Encoding.UTF8.GetString(list.ToArray()).ShouldNotContain(RunningStandIn.MachineSecret);
        System.Text.Json.JsonSerializer.Serialize(known).ShouldNotContain("service-");
    }

    [Fact]
    public async Task A_snapshot_says_what_could_not_be_read_and_keeps_the_bay_as_not_known()
    {
        var lead = await LeadAsync();
        await LetInAsync(lead);
        await _machine.HandAsync("behave/patchy");
        var ilka = await _service.SignInAsync("ilka");
        var ticket = (await ilka.ReportAsync(new(Asset, "Amber lamp"), Ct)).Ticket;

        await ilka.TakeSnapshotAsync(ticket, Ct);

        var latest = (await ilka.TicketAsync(ticket, Ct)).Latest.ShouldNotBeNull();
        latest.Gaps.ShouldNotBeNull().Single().ShouldContain("answered 500");
        (latest.Bays.Count, latest.BayLabelled("5")?.Role).ShouldBe((12, Core.Appliances.BayRole.NotKnown));
    }

    private static async Task<byte[]> ReadAsync(string file)
    {
        await using var open = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        using var into = new MemoryStream();
        await open.CopyToAsync(into, Ct);
        return into.ToArray();
    }
}
