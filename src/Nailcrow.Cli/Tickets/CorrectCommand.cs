using System.CommandLine;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Nailcrow.Cli.Shell;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Moves;

namespace Nailcrow.Cli.Tickets;

/// <summary>Puts one entry of the journal right: it stays there as it was written, and counts as what is said here.</summary>
internal static class CorrectCommand
{
    private const string Instead = "instead.";

    public static Command Build()
    {
        var ticket = Said.Ticket();
        var seq = new Argument<long>("ENTRY") { Description = "Its number in 'ticket journal'." };
        var so = new Argument<string[]>("FIELD=VALUE")
        {
            Description = "What was so; left out with all else, the fields there are.",
            Arity = ArgumentArity.ZeroOrMore,
            DefaultValueFactory = _ => [],
        };
        var because = Said.Optional("--because", "Why; the report tells it.", "REASON");
        var at = new Option<DateTimeOffset?>("--happened")
        {
            Description = "When it happened, with its offset: 2026-11-27T09:12+01:00.",
            HelpName = "TIME",
        };
        var notSo = new Option<bool>("--not-so") { Description = "Nothing of it was so." };
        var goes = new Option<bool>("--picture-goes") { Description = "The picture that came with it goes for good; the entry stays." };
        return new Command("correct", "Put right what was recorded by mistake; both stay in the record.")
        {
            ticket,
            seq,
            so,
            because,
            at,
            notSo,
            goes,
        }.Does(async call =>
        {
            var ways = await call.Client.CorrectionsAsync(call.Get(ticket), call.Get(seq), call.Ct);
            var (fields, time) = (call.Get(so) ?? [], call.Get(at));
            Move[] said =
            [
                .. fields.Length > 0 ? [Move.PutRight] : Array.Empty<Move>(),
                .. time is not null ? [Move.OtherTime] : Array.Empty<Move>(),
                .. call.Get(notSo) ? [Move.NotSo] : Array.Empty<Move>(),
                .. call.Get(goes) ? [Move.RemovePicture] : Array.Empty<Move>(),
            ];
            if (said.Length > 1)
                throw new UsageProblem("Say one thing at once: what was so, when it was, that it was not so, or that its picture goes.");
            if (said is not [var way])
            {
                call.Show(ways, ContractJson.Default.MoveList, screen => Ways(screen, call.Get(ticket), call.Get(seq), ways.Moves));
                return;
            }
            var move = ways.Moves.FirstOrDefault(m => m.Move == way) ?? throw new Refusal(WhyThereIsNone(way, ways.Moves));
            if (move.WhyNot is { } no)
                throw new Refusal(no);
            if (call.Get(because) is not { } why)
                throw new UsageProblem("Say why with --because; the report tells it.");
            await call.WriteAsync(
                call.Get(ticket),
                Filled(move, fields, time, why),
                way == Move.RemovePicture
                    ? $"the picture of entry {call.Get(seq)} is kept no more."
                    : $"entry {call.Get(seq)} is put right."
            );
        });
    }

    private static string WhyThereIsNone(Move way, IReadOnlyList<OfferedMove> ways) =>
        way == Move.RemovePicture
            ? "No picture came with this entry."
            : ways.FirstOrDefault(m => m.Move == Move.NotSo)?.WhyNot ?? "Of this entry only can be said that it was not so: --not-so.";

    private static void Ways(Screen screen, long ticket, long seq, IReadOnlyList<OfferedMove> ways)
    {
        var put = $"nailcrow ticket correct {TicketNumber.Text(ticket)} {seq}";
        var fields = ways.Where(m => m.Move == Move.PutRight)
            .SelectMany(m => m.Fields)
            .Where(f => f.Name.StartsWith(Instead, StringComparison.Ordinal))
            .ToList();
        if (fields.Count > 0)
            screen.Table(
                ["field", "says now", "accepted"],
                fields.Select(f => new[] { Screen.Safe(f.Name[Instead.Length..]), Screen.Safe(f.Value ?? ""), Screen.Safe(Accepted(f)) })
            );
        screen.Table(
            ["you may say", "with"],
            ways.Where(m => m.May)
                .Select(m =>
                    new[]
                    {
                        Screen.Safe(m.Say),
                        Screen.Safe(
                            $"{put} {m.Move switch
                            {
                                Move.NotSo => "--not-so",
                                Move.OtherTime => "--happened TIME",
                                Move.RemovePicture => "--picture-goes",
                                _ => "FIELD=VALUE",
                            }} --because REASON"
                        ),
                    }
                )
        );
        foreach (var no in ways.Select(m => m.WhyNot).OfType<string>().Distinct())
            screen.Line(Screen.Safe(no));
    }

    private static string Accepted(MoveField field) =>
        field.Kind switch
        {
            FieldKind.Choice => string.Join(", ", (field.Choices ?? []).Select(c => c.Value)),
            FieldKind.Flag => "true, or nothing",
            FieldKind.Time => "a time with its offset",
            FieldKind.Day => "a day, 2026-11-27",
            FieldKind.Bytes => "whole bytes",
            FieldKind.Number => "a number",
            _ => $"text, up to {field.Most} characters",
        };

    private static EntryBody Filled(OfferedMove move, IEnumerable<string> said, DateTimeOffset? at, string because)
    {
        var body = JsonSerializer.SerializeToNode(move.Body, JournalJson.Default.EntryBody) as JsonObject ?? [];
        body["because"] = because;
        if (at is { } then)
            body["happenedAt"] = then.ToString("O", CultureInfo.InvariantCulture);
        foreach (var pair in said.Select(s => s.Split('=', 2)))
        {
            var field =
                pair.Length == 2
                    ? move.Fields.FirstOrDefault(f => f.Name == Instead + pair[0])
                    : throw new UsageProblem($"'{pair[0]}' says nothing; write FIELD=VALUE.");
            if (field is null)
                throw new UsageProblem($"There is no field '{pair[0]}' to say otherwise; accepted: {string.Join(", ", Names(move))}.");
            Put(body, field.Name.Split('.'), Value(field, pair[1]));
        }
        try
        {
            return body.Deserialize(JournalJson.Default.EntryBody) ?? throw new UsageProblem("That makes no entry.");
        }
        catch (JsonException e) // a field left empty that needs something, a time that is none
        {
            var field = e.Path is { } path && path.LastIndexOf('.') is var dot and > 0 ? path[(dot + 1)..] : "A field";
            throw new UsageProblem($"{field} cannot be that; without FIELD=VALUE the command tells what each takes.");
        }
    }

    private static IEnumerable<string> Names(OfferedMove move) =>
        move.Fields.Select(f => f.Name).Where(n => n.StartsWith(Instead, StringComparison.Ordinal)).Select(n => n[Instead.Length..]);

    private static void Put(JsonObject body, string[] path, JsonNode? value)
    {
        var part = path[..^1].Aggregate(body, (at, name) => (JsonObject)(at[name] ??= new JsonObject())); // parts of a body are objects
        part[path[^1]] = value;
    }

    private static JsonNode? Value(MoveField field, string text) =>
        text.Length == 0 ? null
        : field.Kind is FieldKind.Bytes or FieldKind.Number
            ? decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var number) ? JsonValue.Create(number)
                : throw new UsageProblem($"{field.Label} is a number, not '{text}'.")
        : field.Kind == FieldKind.Flag
            ? text is "true" or "false" ? JsonValue.Create(text == "true")
                : throw new UsageProblem($"{field.Label}: true, or nothing; not '{text}'.")
        : field.Kind == FieldKind.Choice && field.Choices is { } choices && choices.All(c => c.Value != text)
            ? throw new UsageProblem($"{field.Label} is not '{text}'; accepted: {string.Join(", ", choices.Select(c => c.Value))}.")
        : JsonValue.Create(text);
}
