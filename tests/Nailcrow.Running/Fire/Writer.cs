using System.Text;

namespace Nailcrow.Running.Fire;

/// <summary>Somebody who writes on a ticket of their own, one entry after the other, each until it is acknowledged.</summary>
public sealed class Writer(Doors doors, long ticket, string token)
{
    private static readonly TimeSpan Rests = TimeSpan.FromMilliseconds(20);

    private readonly List<Guid> _acknowledged = [];

    public long Ticket => ticket;

    public IReadOnlyList<Guid> Acknowledged => _acknowledged;

    /// <summary>Until it is enough; the entry that is on its way then is written to its end.</summary>
    public async Task WriteAsync(CancellationToken enough, CancellationToken ct)
    {
        while (!enough.IsCancellationRequested)
        {
            var id = Guid.CreateVersion7();
            await doors.SendAsync(at => Message(at, id), ct);
            _acknowledged.Add(id);
            await Task.Delay(Rests, ct);
        }
    }

    private HttpRequestMessage Message(Uri at, Guid id)
    {
        var message = new HttpRequestMessage(HttpMethod.Post, new Uri(at, $"api/tickets/{ticket}/entries"))
        {
            Content = new StringContent(
                $$$"""{"body":{"kind":"note-written","text":"Written under fire, {{{_acknowledged.Count}}}"},"id":"{{{id}}}"}""",
                Encoding.UTF8,
                "application/json"
            ),
        };
        message.Headers.Authorization = new("Bearer", token);
        return message;
    }
}
