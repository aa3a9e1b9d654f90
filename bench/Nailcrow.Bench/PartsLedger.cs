using System.Diagnostics;
using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Nailcrow.Core.Intake;
using Nailcrow.Core.People;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Planning;
using Nailcrow.Store;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Tickets;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Bench;

/// <summary>
/// The ledger of many parts against that of few: what one part, one shelf, one van and what is late cost; a balance over all; and what
/// a movement adds to the entry that causes it. The lines are made, not played. <c>NAILCROW_BENCH_PARTS</c> says how many parts.
/// </summary>
internal static class PartsLedger
{
    private const int Few = 20_000;
    private const int MovementsEach = 10;
    private const int Rounds = 9;
    private static readonly DateTimeOffset Begin = new(2020, 1, 1, 0, 0, 0, TimeSpan.Zero);

    private static int Many =>
        int.TryParse(Environment.GetEnvironmentVariable("NAILCROW_BENCH_PARTS"), CultureInfo.InvariantCulture, out var parts)
            ? parts
            : 200_000;

    public static async Task MeasureAsync()
    {
        await using var few = await FilledAsync(Few);
        await using var many = await FilledAsync(Many);
        Console.WriteLine($"{Many:N0} parts with {MovementsEach} movements each, against {Few:N0}");
        var random = new Random(7);
        await AgainstAsync(
            "one part's whole line",
            few,
            many,
            (book, of) => book.LineAsync(Serial(random.Next(of)), CancellationToken.None)
        );
        await AgainstAsync("a shelf's first page", few, many, (book, _) => book.HeldAsync(Shelf(3), null, 200, CancellationToken.None));
        await AgainstAsync(
            "a van's first page",
            few,
            many,
            (book, _) => book.HeldAsync(new(HolderKind.Van, "p3"), null, 200, CancellationToken.None)
        );
        await AgainstAsync("what is late, the first page", few, many, (book, _) => book.LateAsync(new(2030, 1, 1), CancellationToken.None));
        await Told.InTurnAsync(
            $"balance over {Many:N0} parts",
            async () => await SecondsAsync(() => many.Book.BalanceAsync(CancellationToken.None)),
            () => Task.FromResult(Bare(many.File)),
            3,
            "s",
            "at most 2 of reading the rows"
        );
        // As parts live: each changes hands some times, on a ticket of its own, and not one part all day long.
        await Told.InTurnAsync(
            $"{Lives * HandOvers} movements by entries of {Lives} tickets",
            () => LivesAsync(few.Journal, (part, nth) => new PartIssued(part, $"p{nth}")),
            () => LivesAsync(few.Journal, (_, nth) => new NoteWritten($"{nth}")),
            Rounds,
            "s",
            "at most 1.3"
        );
        // What is to be said outside is written with its entry; a mail has no part that moves, and is the errand alone.
        var post = new Partner("Post", PartnerKind.Mail, "smtp://127.0.0.1:1/care@firm.example");
        if (!await few.Services.GetRequiredService<Partners>().PutAsync(post, "nothing secret", CancellationToken.None))
            throw new InvalidDataException("The mail server was not taken.");
        await Told.InTurnAsync(
            $"{Lives * HandOvers} mails asked for on {Lives} tickets",
            () => LivesAsync(few.Journal, (_, nth) => new PaperMailed(PaperKind.DeliveryNote, $"a{nth}@place.example"), issued: true),
            () => LivesAsync(few.Journal, (_, nth) => new NoteWritten($"{nth}"), issued: true),
            Rounds,
            "s",
            "nothing; beside a plain entry"
        );
    }

    private const int Lives = 20;
    private const int HandOvers = 10;

    private static int _benched;

    /// <summary>How long the same number of entries takes on so many new tickets, one after the other.</summary>
    /// <param name="issued">The part was issued before, so that there is a paper of it.</param>
    private static async Task<double> LivesAsync(TicketJournal journal, Func<string, int, EntryBody> body, bool issued = false)
    {
        var opened = new List<(long Ticket, string Part)>();
        for (var i = 0; i < Lives; i++)
        {
            var part = $"BENCHPART{++_benched}";
            opened.Add((await OpenedAsync(journal, part), part));
            if (issued)
                await WriteAsync(journal, opened[^1].Ticket, 1, () => new PartIssued(part, "p1"));
        }
        return await SecondsAsync(async () =>
        {
            foreach (var (ticket, part) in opened)
            {
                var nth = 0;
                await WriteAsync(journal, ticket, HandOvers, () => body(part, ++nth));
            }
        });
    }

    private static Task AgainstAsync(string what, Filled few, Filled many, Func<LedgerBook, int, Task> ask) =>
        Told.InTurnAsync(
            what,
            () => SecondsAsync(() => TimesAsync(50, () => ask(many.Book, many.Parts))),
            () => SecondsAsync(() => TimesAsync(50, () => ask(few.Book, few.Parts))),
            Rounds,
            "s/50",
            "at most 2"
        );

    private static async Task TimesAsync(int times, Func<Task> what)
    {
        for (var i = 0; i < times; i++)
            await what();
    }

    private static async Task<double> SecondsAsync(Func<Task> what)
    {
        var watch = Stopwatch.StartNew();
        await what();
        return watch.Elapsed.TotalSeconds;
    }

    private static async Task WriteAsync(TicketJournal journal, long ticket, int times, Func<EntryBody> body)
    {
        for (var i = 0; i < times; i++)
            if (await journal.WriteAsync(ticket, By(body()), CancellationToken.None) is var written and not Written.Kept)
                throw new InvalidDataException($"An entry was not kept: {written}");
    }

    private static Intent By(EntryBody body) =>
        new(Guid.CreateVersion7(), DateTimeOffset.UtcNow, 0, new("sefa", [Role.Stores, Role.Dispatcher]), body);

    private static async Task<long> OpenedAsync(TicketJournal journal, string part)
    {
        var report = new FaultReported("FSC-1", "CH-1", "Brackmere B12", "Corrin Records Trust", "Corrin", "Hall", JobKind.Fault, "Lamp");
        var kept = (Written.Kept)await journal.OpenAsync(By(report), CancellationToken.None);
        await journal.WriteAsync(
            kept.Entry.Ticket,
            By(new PartReserved(part, "Cindral C8", 8_000_000_000_000, "Depot 1")),
            CancellationToken.None
        );
        return kept.Entry.Ticket;
    }

    /// <summary>Reading every line's text in the order in which a balance needs them, and nothing else.</summary>
    private static double Bare(string file)
    {
        var watch = Stopwatch.StartNew();
        using var connection = new SqliteConnection($"Data Source={file};Mode=ReadOnly");
        connection.Open();
        using var ask = connection.CreateCommand();
        ask.CommandText = "SELECT serial, text FROM ledger ORDER BY serial, seq";
        using var rows = ask.ExecuteReader();
        var length = 0L;
        while (rows.Read())
            length += rows.GetString(0).Length + rows.GetString(1).Length;
        return length > 0 ? watch.Elapsed.TotalSeconds : throw new InvalidDataException("The ledger is empty.");
    }

    private static string Serial(int part) => string.Create(CultureInfo.InvariantCulture, $"C8{part:00000000}X");

    private static Holder Shelf(int of) => new(HolderKind.Depot, $"Depot {of}");

    private static async Task<Filled> FilledAsync(int parts)
    {
        var folder = Directory.CreateTempSubdirectory("nailcrow-ledger-").FullName;
        var file = Path.Combine(folder, "nailcrow.db");
        var services = new ServiceCollection()
            .AddSingleton(TimeProvider.System)
            .AddLogging()
            .AddNailcrowStore(file)
            .AddSingleton<ISecretKeeper, KeptRecord.NoSecrets>()
            .BuildServiceProvider();
        await services.GetRequiredService<Database>().MigrateAsync(CancellationToken.None);
        Fill(file, parts);
        await services.GetRequiredService<Projections>().RebuildAsync(CancellationToken.None);
        return new(folder, file, parts, services);
    }

    private static void Fill(string file, int parts)
    {
        using var connection = new SqliteConnection($"Data Source={file}");
        connection.Open();
        using var transaction = connection.BeginTransaction();
        using var insert = connection.CreateCommand();
        insert.Transaction = transaction;
        insert.CommandText =
            "INSERT INTO ledger (serial, seq, id, ticket, at, text, hash) VALUES ($serial, $seq, $id, $ticket, $at, $text, $hash)";
        foreach (var name in new[] { "$serial", "$seq", "$id", "$ticket", "$at", "$text", "$hash" })
            insert.Parameters.AddWithValue(name, "");
        for (var part = 0; part < parts; part++)
        {
            var hash = HashChain.Start;
            for (var seq = 1; seq <= MovementsEach; seq++)
            {
                var movement = Made(part, seq);
                var text = MovementText.Of(movement);
                hash = HashChain.Next(hash, text);
                object[] values =
                [
                    movement.Serial,
                    movement.Seq,
                    movement.Id.ToString("D").ToUpperInvariant(),
                    (object?)movement.Ticket ?? DBNull.Value,
                    movement.At.UtcTicks,
                    text,
                    hash,
                ];
                for (var i = 0; i < values.Length; i++)
                    insert.Parameters[i].Value = values[i];
                insert.ExecuteNonQuery();
            }
        }
        transaction.Commit();
    }

    /// <summary>In a depot, out and back over the years; of a hundred, ten end in depots, two in vans, one on its way and late, the rest in bays.</summary>
    private static Movement Made(int part, int seq)
    {
        var at = Begin.AddHours(part % 20_000).AddDays(seq * 30);
        var last = seq == MovementsEach;
        var to =
            seq == 1 ? Shelf(part % 50)
            : !last ? new Holder(seq % 2 == 0 ? HolderKind.Engineer : HolderKind.Bay, seq % 2 == 0 ? $"p{part % 200}" : "3")
            : (part % 100) switch
            {
                < 10 => Shelf(part % 50),
                < 12 => new Holder(HolderKind.Van, $"p{part % 200}"),
                12 => new Holder(HolderKind.Carrier, "Gullwing Freight"),
                _ => new Holder(HolderKind.Bay, "3"),
            };
        return new(
            Guid.CreateVersion7(),
            Serial(part),
            seq == 1 ? MovementKind.Came : MovementKind.Went,
            at,
            "sefa",
            to,
            Ticket: seq == 1 ? null : 1_000_000 + part,
            Asset: to.Kind == HolderKind.Bay ? $"FSC-{part % 100_000}" : null,
            Going: to.Kind == HolderKind.Carrier ? new(Shelf(1), new DateOnly(2026, 1, 1)) : null,
            Part: seq == 1 ? new($"Cindral C{part % 40}", 8_000_000_000_000) : null
        )
        {
            Seq = seq,
            RecordedAt = at,
        };
    }

    private sealed record Filled(string Folder, string File, int Parts, ServiceProvider Services) : IAsyncDisposable
    {
        public LedgerBook Book { get; } = Services.GetRequiredService<LedgerBook>();

        public TicketJournal Journal { get; } = Services.GetRequiredService<TicketJournal>();

        public async ValueTask DisposeAsync()
        {
            await Services.DisposeAsync();
            SqliteConnection.ClearAllPools();
            Directory.Delete(Folder, recursive: true);
        }
    }
}
