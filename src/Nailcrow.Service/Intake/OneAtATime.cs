namespace Nailcrow.Service.Intake;

/// <summary>
/// Whoever is about to open a ticket for a machine looks first whether there is one; two who look at the same moment would each
/// open one.
/// </summary>
internal sealed class OneAtATime
{
    // A machine's name always falls to the same of these, so their number bounds memory, not machines.
    private const int Doors = 256;

    private readonly SemaphoreSlim[] _doors = [.. Enumerable.Range(0, Doors).Select(_ => new SemaphoreSlim(1, 1))];

    public async Task<T> OfAsync<T>(string asset, Func<Task<T>> act, CancellationToken ct)
    {
        var door = _doors[(uint)asset.GetHashCode(StringComparison.OrdinalIgnoreCase) % Doors];
        await door.WaitAsync(ct);
        try
        {
            return await act();
        }
        finally
        {
            door.Release();
        }
    }
}
