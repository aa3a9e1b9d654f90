using Nailcrow.Running;

namespace Nailcrow.Cli.Tests;

/// <summary>A service, a machine, and the command signed in as everybody.</summary>
public sealed class CommandInUse : IAsyncLifetime
{
    private RunningService? _service;
    private RunningStandIn? _machine;
    private RunningCommand? _command;

    public RunningCommand Command => _command ?? throw new InvalidOperationException("Not started yet.");

    public RunningStandIn Machine => _machine ?? throw new InvalidOperationException("Not started yet.");

    public async ValueTask InitializeAsync()
    {
        _machine = await RunningStandIn.StartAsync();
        _service = await RunningService.StartPeopledAsync(_machine.Address);
        _command = new RunningCommand(_service.Address);
        foreach (var person in new[] { "admin", "lioth", "sefa", "dorrik", "ilka" })
            await _command.DoneAsync("sign-in", person);
    }

    /// <summary>A ticket on a machine that nobody reaches by wire, with its bays typed in.</summary>
    public async Task<string> TypedTicketAsync()
    {
        var opened = await Command.DoneAsync("ticket", "report", "FSC-0203", "Lamp of bay 5 is off");
        var ticket = opened.Split(':')[0];
        await SeesAsync(ticket);
        return ticket;
    }

    /// <summary>A person types what the screen shows: bay 5 has dropped out.</summary>
    public async Task SeesAsync(string ticket)
    {
        var bays = Enumerable.Range(1, 8).Where(b => b != 5).SelectMany(b => new[] { "--bay", $"{b}=CDR12T000{b},member,good,catalogue" });
        await Command.DoneAsync([
            "snapshot",
            "write",
            ticket,
            .. bays,
            "--bay",
            "5=CDR12T0005,dropped,faulted,catalogue",
            "--array",
            "catalogue=degraded",
        ]);
    }

    public RunningService Service => _service ?? throw new InvalidOperationException("Not started yet.");

    public async ValueTask DisposeAsync()
    {
        _command?.Dispose();
        if (_service is not null)
            await _service.DisposeAsync();
        if (_machine is not null)
            await _machine.DisposeAsync();
    }
}
