using Nailcrow.Client.Returns;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Terms;

namespace Nailcrow.Client;

/// <summary>Stores: parts, where they are, and what is done with them.</summary>
public sealed partial class NailcrowClient
{
    /// <param name="depot">Null for all depots.</param>
    public Task<StoresDesk> StoresAsync(string? depot, CancellationToken ct) =>
        GetAsync($"api/stores?depot={Uri.EscapeDataString(depot ?? "")}", Json.StoresDesk, ct);

    public Task<PartPage> PartsAsync(Holder holder, string? after, CancellationToken ct) =>
        GetAsync(
            $"api/stores/parts?kind={Words.Of(holder.Kind)}&holder={Uri.EscapeDataString(holder.Name)}"
                + (holder.Shelf is { } shelf ? $"&shelf={Uri.EscapeDataString(shelf)}" : "")
                + (after is null ? "" : $"&after={Uri.EscapeDataString(after)}"),
            Json.PartPage,
            ct
        );

    public Task<PartLineView> PartAsync(string serial, CancellationToken ct) =>
        GetAsync($"api/parts/{Uri.EscapeDataString(serial)}", Json.PartLineView, ct);

    public Task<Balance> BalanceAsync(CancellationToken ct) => GetAsync("api/stores/balance", Json.Balance, ct);

    public Task<ReceiveAnswer> ReceiveAsync(ReceiveAsk ask, CancellationToken ct) =>
        PostOnceAsync("api/stores/receipts", ask, Json.ReceiveAsk, Json.ReceiveAnswer, ct);

    public Task<MoveAnswer> MovePartsAsync(MoveAsk ask, CancellationToken ct) =>
        PostOnceAsync("api/stores/moves", ask, Json.MoveAsk, Json.MoveAnswer, ct);

    public Task<ReceiveAnswer> HandOutAsync(HandOutAsk ask, CancellationToken ct) =>
        PostOnceAsync("api/stores/hand-outs", ask, Json.HandOutAsk, Json.ReceiveAnswer, ct);

    public Task<CountAnswer> CountAsync(CountAsk ask, CancellationToken ct) =>
        PostOnceAsync("api/stores/counts", ask, Json.CountAsk, Json.CountAnswer, ct);

    public Task<ReceiveAnswer> WipeAsync(WipeAsk ask, CancellationToken ct) =>
        PostOnceAsync("api/stores/wipes", ask, Json.WipeAsk, Json.ReceiveAnswer, ct);

    public Task<ReceiveAnswer> WriteOffAsync(WriteOffAsk ask, CancellationToken ct) =>
        PostOnceAsync("api/stores/write-offs", ask, Json.WriteOffAsk, Json.ReceiveAnswer, ct);

    /// <summary>What is counted, and how many are where: everywhere, or with one holder.</summary>
    public Task<IReadOnlyList<SupplyStock>> SuppliesAsync(Holder? with, CancellationToken ct) =>
        GetAsync(
            with is null ? "api/supplies" : $"api/supplies?{Words.Of(with.Kind)}={Uri.EscapeDataString(with.Name)}",
            Json.IReadOnlyListSupplyStock,
            ct
        );

    public Task<SupplyView> SupplyAsync(string name, CancellationToken ct) =>
        GetAsync($"api/supplies/{Uri.EscapeDataString(name)}", Json.SupplyView, ct);

    public Task<SupplyAnswer> CountSuppliesAsync(SupplyAsk ask, CancellationToken ct) =>
        PostOnceAsync("api/supplies", ask, Json.SupplyAsk, Json.SupplyAnswer, ct);

    /// <summary>What is to be picked, in the order of the shelves, a PDF.</summary>
    /// <param name="depot">Null for all depots.</param>
    public Task PickingListAsync(string? depot, Stream into, CancellationToken ct) =>
        FileAsync($"api/stores/picking-list.pdf?depot={Uri.EscapeDataString(depot ?? "")}", into, ct);

    /// <summary>Labels of these parts, a PDF.</summary>
    public Task LabelsAsync(IReadOnlyList<string> serials, Stream into, CancellationToken ct) =>
        FileAsync($"api/stores/labels.pdf?{string.Join("&", serials.Select(s => $"serial={Uri.EscapeDataString(s)}"))}", into, ct);

    /// <summary>Labels of all that lies in one place, a PDF.</summary>
    public Task LabelsAsync(Holder at, Stream into, CancellationToken ct) =>
        FileAsync(
            $"api/stores/labels.pdf?depot={Uri.EscapeDataString(at.Place())}"
                + (at.Shelf is { } shelf ? $"&shelf={Uri.EscapeDataString(shelf)}" : ""),
            into,
            ct
        );
}
