using Nailcrow.Client;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;

namespace Nailcrow.Service.Tests.Intake;

public sealed class ReferenceTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    private static readonly Site Good = new("Orrin Shelf", "Orrin Trust", "Shelf 1", "Europe/Oslo");

    private async Task<string> RefusalAsync(ReferenceData data) =>
        (await Should.ThrowAsync<ApiProblem>(async () => await (await service.AsAsync("admin")).LoadAsync(data, Ct))).Message;

    [Fact]
    public async Task A_file_is_loaded_whole_or_not_at_all()
    {
        var data = new ReferenceData(
            [],
            [Good, new("Nowhere", "x", "x", "Mars/Olympus")],
            [new("FSC-9001", "X1234", "brackmere-b12", "Orrin Shelf", "Rack 1")]
        );

        (await RefusalAsync(data)).ShouldBe(
            "Nothing was loaded. Site 'Nowhere' has the time zone 'Mars/Olympus', which is none; write one like 'Europe/Oslo'."
        );

        await Should.ThrowAsync<ApiProblem>(async () => await (await service.AsAsync("admin")).ApplianceAsync("FSC-9001", Ct));
    }

    [Theory]
    [InlineData("no-model", "Corrin Deep Archive", null, "Appliance FSC-9002 is of model 'no-model', which is not known; known: ")]
    [InlineData("brackmere-b12", "No Site", null, "Appliance FSC-9002 stands at 'No Site', which is no site here; known: ")]
    [InlineData(
        "brackmere-b12",
        "Corrin Deep Archive",
        "ftp://10.0.0.7",
        "Appliance FSC-9002 has the address 'ftp://10.0.0.7'; write one like https://10.0.0.7."
    )]
    public async Task Each_thing_wrong_is_a_sentence(string model, string site, string? address, string sentence) =>
        (await RefusalAsync(new([], [], [new("FSC-9002", "X1234", model, site, "Rack 1", address)]))).ShouldStartWith(
            $"Nothing was loaded. {sentence}"
        );

    [Fact]
    public async Task A_model_whose_lamps_tell_somebody_to_pull_a_drive_is_not_loaded()
    {
        var known = (await (await service.AsAsync("ilka")).ModelsAsync(Ct))[0];

        var model = known with { Id = "model-that-commands", Lamps = [new("amber, steady", "pull the drive at once")] };

        var told = await RefusalAsync(new([model], [Good with { Name = "Beside It", Latitude = 91 }], []));

        told.ShouldStartWith("Nothing was loaded. Site 'Beside It' is at 91, "); // all that is wrong at once
        told.ShouldContain("Model 'model-that-commands' says 'pull' in its lamps");
        (await (await service.AsAsync("ilka")).ModelsAsync(Ct)).ShouldNotContain(m => m.Id == model.Id);
    }

    [Fact]
    public async Task What_is_loaded_again_replaces_what_was_there()
    {
        var admin = await service.AsAsync("admin");
        await admin.LoadAsync(new([], [Good], [new("FSC-9003", "X1234", "brackmere-b12", Good.Name, "Rack 1")]), Ct);

        await admin.LoadAsync(new([], [], [new("FSC-9003", "X1234", "brackmere-b12", Good.Name, "Rack 2")]), Ct);

        (await admin.ApplianceAsync("FSC-9003", Ct)).Appliance.Location.ShouldBe("Rack 2");
    }

    [Fact]
    public async Task The_library_tells_its_procedures_and_what_is_wrong_with_those_it_cannot_use()
    {
        var library = await (await service.AsAsync("ilka")).ProceduresAsync(Ct);

        library.Procedures.ShouldContain(p => p.Id == "front-hot" && p.Problems.Count == 0 && p.Steps > 30);
    }
}
