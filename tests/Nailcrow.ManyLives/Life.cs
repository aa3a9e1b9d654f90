using System.Diagnostics;
using System.Reflection;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;

namespace Nailcrow.ManyLives;

/// <summary>One run of the program, from its first word to its last, beside others in the same process.</summary>
internal sealed class Life
{
    private static readonly AsyncLocal<TaskCompletionSource<IHost>?> Expected = new();

    private readonly Task<int> _lived;
    private readonly TaskCompletionSource<IHost> _host = new(TaskCreationOptions.RunContinuationsAsynchronously);

    // The framework says which host it has built, in the flow of whoever had it built.
    static Life() => DiagnosticListener.AllListeners.Subscribe(new Ears<DiagnosticListener>(Listen));

    public Life(string[] arguments) =>
        _lived = Task.Run(() =>
        {
            Expected.Value = _host;
            return LiveAsync(arguments);
        });

    /// <summary>Where it listens, as soon as it does.</summary>
    /// <exception cref="InvalidOperationException">It ended first.</exception>
    public async Task<string> AddressAsync()
    {
        if (await Task.WhenAny(_host.Task, _lived) == _lived)
            throw new InvalidOperationException($"It ended with {await _lived} before it listened.");
        var host = await _host.Task;
        var listens = new TaskCompletionSource();
        using var started = host.Services.GetRequiredService<IHostApplicationLifetime>().ApplicationStarted.Register(listens.SetResult);
        if (await Task.WhenAny(listens.Task, _lived) == _lived)
            throw new InvalidOperationException($"It ended with {await _lived} before it listened.");
        return host.Services.GetRequiredService<IServer>().Features.GetRequiredFeature<IServerAddressesFeature>().Addresses.First();
    }

    /// <summary>Asks it to stop as SIGTERM does, and waits until it has.</summary>
    public async Task EndAsync()
    {
        if (_host.Task.IsCompletedSuccessfully && !_lived.IsCompleted)
            (await _host.Task).Services.GetRequiredService<IHostApplicationLifetime>().StopApplication();
        await _lived;
    }

    private static async Task<int> LiveAsync(string[] arguments)
    {
        var program = Assembly.Load("nailcrow-service").EntryPoint ?? throw new InvalidOperationException("It has no beginning.");
        // What a compiler makes of top-level statements that wait is a method that waits; its name is not ours to know.
        return program.Invoke(null, [arguments]) switch
        {
            Task<int> answers => await answers,
            int ended => ended,
            var other => throw new InvalidOperationException($"It ended with {other}."),
        };
    }

    private static void Listen(DiagnosticListener listener)
    {
        if (listener.Name == "Microsoft.Extensions.Hosting")
            listener.Subscribe(
                new Ears<KeyValuePair<string, object?>>(told =>
                {
                    if (told is { Key: "HostBuilt", Value: IHost host })
                        Expected.Value?.TrySetResult(host);
                })
            );
    }

    private sealed class Ears<T>(Action<T> hears) : IObserver<T>
    {
        public void OnNext(T value) => hears(value);

        public void OnCompleted() { }

        public void OnError(Exception error) { }
    }
}
