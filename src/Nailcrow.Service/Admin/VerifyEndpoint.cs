using System.Text.Json;
using System.Threading.Channels;
using Microsoft.AspNetCore.Http.HttpResults;
using Nailcrow.Client;
using Nailcrow.Client.Admin;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Service.Admin;

/// <summary>Holds everything that is kept against itself. It may take minutes, so it says how far it is: one line of JSON after the other.</summary>
internal static class VerifyEndpoint
{
    // Somebody who changed a column changed it in every row; what helps is the first of them and how many there are.
    private const int MostTold = 1_000;

    public static void MapVerify(this RouteGroupBuilder admin) =>
        admin.MapPost("/verify", Verify).WithName("Verify").Produces<VerifyNews>(200, "application/x-ndjson").ProducesProblem(422);

    internal static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> Verify(
        Sent<VerifyAsk> sent,
        JournalCheck check,
        Seals seals,
        CancellationToken ct
    )
    {
        var ask = sent.Message;
        if ((ask.Seal ?? await seals.NewestAsync(ct)) is not { } text)
            return Answer(null, !ask.RecordOnly, check);
        return seals.Read(text).Is(out var read, out var reason) ? Answer(read.Seal, !ask.RecordOnly, check)
            : ask.Seal is null
                ? Answer(
                    null,
                    !ask.RecordOnly,
                    check,
                    new Trouble(TroubleKind.NotAsSealed, null, null, $"The newest seal in the database is none: {reason}")
                )
            : Refusals.Unusable(reason);
    }

    private static PushStreamHttpResult Answer(Seal? seal, bool readToo, JournalCheck check, params Trouble[] already) =>
        TypedResults.Stream(into => TellAsync(into, seal, readToo, check, already), "application/x-ndjson");

    private static async Task TellAsync(Stream into, Seal? seal, bool readToo, JournalCheck check, Trouble[] already)
    {
        // What is said on the way may be left out where the listener is slow; the last line may not.
        var news = Channel.CreateBounded<VerifyNews>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest });
        var running = Task.Run(() => RunAsync(check, seal, readToo, already, news.Writer));
        await foreach (var line in news.Reader.ReadAllAsync())
            await LineAsync(into, line);
        await LineAsync(into, await running);
    }

    private static async Task<VerifyNews> RunAsync(
        JournalCheck check,
        Seal? seal,
        bool readToo,
        Trouble[] already,
        ChannelWriter<VerifyNews> news
    )
    {
        var (troubles, more) = (already.ToList(), 0L);
        try
        {
            var over = await check.RunAsync(seal, readToo, Tell, p => news.TryWrite(new(p.What, p.Done, p.Of)), CancellationToken.None);
            return new(
                Found: new(over.Tickets, over.Entries, over.Pictures, over.Sealed, troubles, more, over.Movements, over.SecurityLines)
            );
        }
        catch (Exception e) when (StorageTroubles.Sentence(e) is not null)
        {
            return new(Problem: $"It could not be verified to the end: {StorageTroubles.Sentence(e)}");
        }
        finally
        {
            news.Complete();
        }

        void Tell(Trouble trouble)
        {
            if (troubles.Count < MostTold)
                troubles.Add(trouble);
            else
                more++;
        }
    }

    private static async Task LineAsync(Stream into, VerifyNews line)
    {
        await JsonSerializer.SerializeAsync(into, line, ContractJson.Default.VerifyNews);
        await into.WriteAsync("\n"u8.ToArray());
        await into.FlushAsync();
    }
}
