namespace Nailcrow.Service.Host;

/// <summary>
/// What is looked at first and then acted on, by one at a time for each name: two who look whether a machine has a ticket would each open
/// one, and a hundred who try a password would all be the first.
/// </summary>
internal sealed class OneAtATime
{
    // A name always falls to the same of these, so their number bounds memory, not machines.
    private const int Doors = 256;

    private readonly SemaphoreSlim[] _doors = [.. Enumerable.Range(0, Doors).Select(_ => new SemaphoreSlim(1, 1))];

    public async Task<T> OfAsync<T>(string name, Func<Task<T>> act, CancellationToken ct)
    {
        var door = _doors[(uint)name.GetHashCode(StringComparison.OrdinalIgnoreCase) % Doors];
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
