using Nailcrow.Client.Intake;
using Nailcrow.Client.Tickets;
using Nailcrow.Client.Tickets.Planning;
using Nailcrow.Core.Procedures;
using Nailcrow.Core.Reports;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns.Fitting;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Sealing;
using Nailcrow.Core.Tickets.Telling;

namespace Nailcrow.Client;

/// <summary>Tickets: reported, listed, told, written to, planned, proved.</summary>
public sealed partial class NailcrowClient
{
    public Task<TicketPage> TicketsAsync(TicketSearch search, CancellationToken ct) =>
        GetAsync($"api/tickets?{Query(search)}", Json.TicketPage, ct);

    /// <summary>What is open, by whose turn it is, the worst first.</summary>
    /// <param name="most">How many of each turn are told, 1 to 1000.</param>
    public Task<WaitingView> WaitingAsync(int most, CancellationToken ct) =>
        GetAsync($"api/tickets/waiting?most={most}", Json.WaitingView, ct);

    public Task<TicketView> TicketAsync(long number, CancellationToken ct) => GetAsync($"api/tickets/{number}", Json.TicketView, ct);

    /// <summary>The ticket again, for whoever follows a run: a sheet never changes, and is sent only where it is another one than this.</summary>
    public async Task<TicketView> TicketAsync(long number, RunSheet have, CancellationToken ct)
    {
        var view = await GetAsync($"api/tickets/{number}?haveSheet={have.Id}", Json.TicketView, ct);
        return view.Run is { } run && run.Sheet.Id == have.Id ? view with { Run = run with { Sheet = have } } : view;
    }

    public Task<JournalPage> JournalAsync(long number, long after, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/journal?after={after}", Json.JournalPage, ct);

    /// <summary>How one entry may be put right by whoever asks.</summary>
    public Task<MoveList> CorrectionsAsync(long number, long seq, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/entries/{seq}/moves", Json.MoveList, ct);

    public Task<Receipt> ReportAsync(FaultAsk fault, CancellationToken ct) =>
        PostOnceAsync("api/tickets", fault with { Id = fault.Id ?? Guid.CreateVersion7() }, Json.FaultAsk, Json.Receipt, ct);

    /// <summary>Writes an entry under an id of its own, so that it may be sent again after a broken connection.</summary>
    /// <param name="at">When it happened, where that is told later; left out, now.</param>
    public Task<Receipt> WriteAsync(long number, EntryBody body, CancellationToken ct, DateTimeOffset? at = null)
    {
        var now = time.GetUtcNow();
        return WriteAsync(number, new EntryAsk(body, Guid.CreateVersion7(now), at ?? now, now, _clock.BehindMs), ct);
    }

    public Task<Receipt> WriteAsync(long number, EntryAsk entry, CancellationToken ct) =>
        PostOnceAsync($"api/tickets/{number}/entries", entry, Json.EntryAsk, Json.Receipt, ct);

    /// <param name="plan">Exchanges to reckon through, as "3=12TB,5=16TB"; null for none.</param>
    public Task<BringView> BringAsync(long number, CancellationToken ct, string? plan = null) =>
        GetAsync($"api/tickets/{number}/bring{(plan is null ? "" : $"?plan={Uri.EscapeDataString(plan)}")}", Json.BringView, ct);

    /// <summary>A page of the open tickets, what comes first on top where no other order is asked for.</summary>
    public Task<DeskView> DeskAsync(CancellationToken ct, TicketSearch? search = null) =>
        GetAsync($"api/desk?{Query((search ?? new(Order: TicketOrder.Worst)) with { Ended = null, Before = null })}", Json.DeskView, ct);

    public Task<DayView> DayAsync(string engineer, CancellationToken ct) =>
        GetAsync($"api/days/{Uri.EscapeDataString(engineer)}", Json.DayView, ct);

    public Task<ServiceReport> ReportOfAsync(long number, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/report", Json.ServiceReport, ct);

    public Task ReportPaperAsync(long number, Stream into, CancellationToken ct) => FileAsync($"api/tickets/{number}/report.pdf", into, ct);

    /// <summary>What the customer was advised, for them to decide on.</summary>
    public Task<Proposal> ProposalAsync(long number, CancellationToken ct) => GetAsync($"api/tickets/{number}/proposal", Json.Proposal, ct);

    /// <summary>The same on paper, a PDF.</summary>
    public Task ProposalPaperAsync(long number, Stream into, CancellationToken ct) =>
        FileAsync($"api/tickets/{number}/proposal.pdf", into, ct);

    /// <summary>Every paper of a ticket, and why another cannot be had yet.</summary>
    public Task<IReadOnlyList<TicketPaper>> DocumentsAsync(long number, CancellationToken ct) =>
        GetAsync($"api/tickets/{number}/documents", Json.IReadOnlyListTicketPaper, ct);

    /// <summary>One of them, a PDF.</summary>
    /// <param name="about">Which of its kind; null where there is one.</param>
    public Task DocumentAsync(long number, PaperKind kind, string? about, Stream into, CancellationToken ct) =>
        FileAsync(
            $"api/tickets/{number}/documents/{Words.Of(kind)}{(about is null ? "" : $"?about={Uri.EscapeDataString(about)}")}",
            into,
            ct
        );

    /// <summary>A ticket's entries with the way to the newest seal.</summary>
    public Task<TicketProof> ProveAsync(long number, CancellationToken ct) => GetAsync($"api/tickets/{number}/proof", Json.TicketProof, ct);
}
