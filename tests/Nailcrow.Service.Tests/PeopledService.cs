using Nailcrow.Client;
using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests;

/// <summary>One service and one machine for all tests of a class; each test opens a ticket of its own.</summary>
public sealed class PeopledService : IAsyncLifetime
{
    private readonly Dictionary<string, NailcrowClient> _signedIn = [];
    private RunningService? _service;
    private RunningStandIn? _machine;

    public RunningService Service => _service ?? throw new InvalidOperationException("Not started yet.");

    public RunningStandIn Machine => _machine ?? throw new InvalidOperationException("Not started yet.");

    public async ValueTask InitializeAsync()
    {
        _machine = await RunningStandIn.StartAsync();
        _service = await RunningService.StartPeopledAsync(_machine.Address);
    }

    public async Task<NailcrowClient> AsAsync(string name)
    {
        if (!_signedIn.TryGetValue(name, out var client))
            _signedIn[name] = client = await Service.SignInAsync(name);
        return client;
    }

    /// <summary>A ticket of its own: a bay nobody else's test names.</summary>
    public async Task<long> OpenAsync(string asset = "FSC-0203", string? bay = null) =>
        (
            await (await AsAsync("ilka")).ReportAsync(new FaultAsk(asset, "Amber lamp", Bay: bay), TestContext.Current.CancellationToken)
        ).Ticket;

    public async Task<Receipt> WriteAsync(string who, long ticket, EntryBody body) =>
        await (await AsAsync(who)).WriteAsync(ticket, body, TestContext.Current.CancellationToken);

    public async Task<(int Status, string Sentence)> RefusedAsync(string who, long ticket, EntryBody body)
    {
        var no = await Should.ThrowAsync<ApiProblem>(() => WriteAsync(who, ticket, body));
        return ((int)no.Status, no.Message);
    }

    public async ValueTask DisposeAsync()
    {
        if (_service is not null)
            await _service.DisposeAsync();
        if (_machine is not null)
            await _machine.DisposeAsync();
    }
}
