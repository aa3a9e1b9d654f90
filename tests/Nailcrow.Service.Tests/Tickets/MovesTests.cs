using Nailcrow.Client;
using Nailcrow.Core.Tickets.Linking;
using Nailcrow.Core.Tickets.Moves;
using Nailcrow.Running;

namespace Nailcrow.Service.Tests.Tickets;

/// <summary>What the service offers it takes: people of every role press whatever they are shown, one after the other.</summary>
public sealed class MovesTests(PeopledService service) : IClassFixture<PeopledService>
{
    private static readonly string[] Everybody = ["ilka", "dorrik", "sefa", "lioth", "admin"];

    private static CancellationToken Ct => TestContext.Current.CancellationToken;

    [Theory, InlineData("FSC-0107", 11), InlineData("FSC-0107", 12), InlineData("FSC-0203", 13), InlineData("FSC-0203", 14)]
    public async Task Whatever_a_person_is_offered_is_never_refused(string asset, int chance)
    {
        var random = new Random(chance);
        var ticket = await service.OpenAsync(asset, asset == "FSC-0107" ? "2" : null);
        for (var press = 0; press < 50; press++)
        {
            var who = Everybody[random.Next(Everybody.Length)];
            var client = await service.AsAsync(who);
            var offered = (await client.TicketAsync(ticket, Ct))
                .Moves.Where(m => m.May && m.Way != MoveWay.Page && (press > 40 || m.Move is not (Move.Cancel or Move.CloseOtherwise)))
                .ToList();
            if (offered.Count == 0)
                continue;
            var move = offered[random.Next(offered.Count)];
            try
            {
                await MakeAsync(client, ticket, move, random);
            }
            catch (ApiProblem no)
            {
                throw new Xunit.Sdk.XunitException(
                    $"{who} was offered {move.Move} ({move.Say}) at press {press}, and was refused: {no.Message}"
                );
            }
        }
    }

    [Fact]
    public async Task Each_person_is_told_what_they_may_do_and_not_what_another_may()
    {
        var ticket = await service.OpenAsync();

        (await MayAsync("dorrik", ticket)).ShouldContain(Move.Cancel);
        (await MayAsync("ilka", ticket)).ShouldNotContain(Move.Cancel);
        (await MayAsync("sefa", ticket)).ShouldContain(Move.ReservePart);
        (await MayAsync("ilka", ticket)).ShouldNotContain(Move.ReservePart);
        (await MayAsync("admin", ticket)).ShouldNotContain(Move.WriteNote);
    }

    private async Task<IReadOnlyList<Move>> MayAsync(string who, long ticket) =>
        [.. (await (await service.AsAsync(who)).TicketAsync(ticket, Ct)).Moves.Where(m => m.May).Select(m => m.Move)];

    /// <summary>With a ticket there is, and not with the same one in the same way again.</summary>
    private static async Task LinkAsync(NailcrowClient client, long ticket)
    {
        var linked = (await client.TicketAsync(ticket, Ct)).Links.Select(l => l.Ticket).ToHashSet();
        var other = (await client.TicketsAsync(new(Limit: 200), Ct)).Tickets.FirstOrDefault(t =>
            t.Number != ticket && !linked.Contains(t.Number)
        );
        if (other is not null)
            await client.WriteAsync(ticket, new TicketLinked(other.Number, LinkKind.SameVisit), Ct);
    }

    private static async Task MakeAsync(NailcrowClient client, long ticket, OfferedMove move, Random random)
    {
        if (move.Way == MoveWay.Sheet)
            await client.StartRunAsync(ticket, null, Ct);
        else if (move is { Way: MoveWay.Machine, Move: Move.TakeSnapshot })
            await client.TakeSnapshotAsync(ticket, Ct);
        else if (move is { Way: MoveWay.Machine, Move: Move.TakeReading })
            await client.TakeReadingAsync(ticket, Ct);
        else if (move is { Way: MoveWay.Machine, Body: Core.Swaps.Seen.LocatorSwitched light })
            await client.SwitchLightAsync(ticket, light.On, Ct);
        else if (move.Move == Move.LinkTicket)
            await LinkAsync(client, ticket);
        else
            await client.WriteAsync(ticket, FilledMove.Of(move, DateTimeOffset.UtcNow, random), Ct);
    }
}
