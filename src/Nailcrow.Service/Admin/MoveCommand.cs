using System.Globalization;
using Nailcrow.Core.Tickets.Journal.Verifying;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Keeping;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Store;
using Nailcrow.Store.Moving;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;
using static Nailcrow.Service.Host.OnTheMachine;

namespace Nailcrow.Service.Admin;

/// <summary>
/// <c>nailcrow-service move --to PLACE [--from PLACE]</c>: moves a record from a file to a PostgreSQL or back, also while a service works on it;
/// the last of it when none does. <c>nailcrow-service move --forget</c>: it is written here again.
/// </summary>
internal static class MoveCommand
{
    private const int NotAll = 3;

    public const string Usual = "nailcrow-service move --to PLACE [--from PLACE]";

    private const string How =
        $"{Usual}, where a place is a file or \"Host=...;Database=...;Username=...\"; --from is what "
        + "Nailcrow:Database or Nailcrow:Data say where it is not given. nailcrow-service move --forget [--from PLACE] makes a record that was moved "
        + "the one again that is written.";

    /// <param name="To">Null where it is to be forgotten that the record was moved.</param>
    private sealed record Said(string? From, string? To, string[] Settings);

    public static async Task<int> RunAsync(string[] args)
    {
        if (Read(args) is not { } said)
            return Say(How, Usage);
        var settings = Settings(said.Settings);
        var from = RecordPlace.Of(said.From ?? settings.Database ?? settings.Data);
        var to = said.To is null ? null : RecordPlace.Of(said.To);
        if (WhyNot(from, to, settings) is { } no)
            return Say(no, Refused);
        try
        {
            return to is null ? await ForgetAsync(from) : await MoveAsync(from, to, settings);
        }
        catch (NotMovableException e)
        {
            return Say($"{e.Message}. Nothing of {from} was changed; what was copied before stays, and is not copied again.", Refused);
        }
        catch (Exception e) when (StorageTroubles.Trouble(e) is { } trouble)
        {
            return Say($"{trouble} Say the same again when that is mended: a move goes on where it stood.", Refused);
        }
    }

    private static async Task<int> MoveAsync(RecordPlace from, RecordPlace to, ServiceSettings settings)
    {
        await using var here = Services(from, settings);
        await using var there = Services(to, settings);
        Console.WriteLine($"From {from} to {to}:");
        var move = new RecordMove(
            from,
            to,
            there.GetRequiredService<Database>(),
            there.GetRequiredService<JournalCheck>(),
            there.GetRequiredService<Seals>(),
            TimeProvider.System
        );
        var keys = new KeysMoved(here, there, settings);
        var moved = await move.RunAsync(
            () => Task.Run(() => MoveKeys(keys, from, to)),
            line => Console.WriteLine($"  {line}"),
            CancellationToken.None
        );
        switch (moved)
        {
            case Moved.Refused(var why):
                return Say(why, Refused);
            case Moved.NotAll(var who):
                Console.WriteLine(
                    $"So far all is there, and read back as it is here. {who} Stop it and say this again: only what was written since is copied then."
                );
                return NotAll;
            case Moved.Whole(var over, var troubles):
                Tell(to, over, troubles);
                return Done;
            default:
                throw new InvalidOperationException($"{moved} is nothing that comes of a move.");
        }
    }

    private static void Tell(RecordPlace to, Checked over, IReadOnlyList<Trouble> troubles)
    {
        Console.WriteLine(
            $"Every row was read back and is as it was. The chains of {Number(over.Tickets)} tickets with {Number(over.Entries)} entries were gone over"
                + (over.Sealed > 0 ? $", {Number(over.Sealed)} of them against the last seal" : "")
                + (
                    troubles.Count == 0
                        ? ": they hold."
                        : $": {troubles.Count} things are wrong, and were before; 'nailcrow admin verify' tells all."
                )
        );
        foreach (var trouble in troubles.Take(10))
            Console.WriteLine($"  {trouble.Sentence}");
        Console.WriteLine(
            to.Server is null
                ? $"The record is at {to} from now on. Start the service with --Nailcrow:Data={to} and without --Nailcrow:Database."
                : $"The record is at {to} from now on. Start every node with that as --Nailcrow:Database; where it was, no service starts any more."
        );
    }

    private static string Number(long count) => count.ToString("N0", CultureInfo.InvariantCulture);

    private static async Task<int> ForgetAsync(RecordPlace place)
    {
        if (await RecordMove.ForgetAsync(place, CancellationToken.None) is not { } where)
            return Say($"Nothing was moved away from {place}.", Refused);
        Console.WriteLine($"{place} is the record again that is written. What was written at {where} is not in it.");
        return Done;
    }

    private static void MoveKeys(KeysMoved keys, RecordPlace from, RecordPlace to)
    {
        if (from.File is { } file)
            keys.ToServer($"{file}.keys");
        else
            keys.ToFolder($"{to.File}.keys");
    }

    private static ServiceProvider Services(RecordPlace place, ServiceSettings settings)
    {
        var of = settings with { Data = place.File ?? settings.Data, Database = place.Server };
        var services = new ServiceCollection()
            .AddSingleton(TimeProvider.System)
            .AddLogging()
            .AddNailcrowStore(of.Data, of.Database)
            .AddSingleton<ISecretKeeper, ProtectedSecrets>();
        if (place.Server is not null) // of a file's keys nothing is asked but the files; where nothing is moved, nothing is made beside it
            services.AddKeys(of);
        return services.BuildServiceProvider();
    }

    private static string? WhyNot(RecordPlace from, RecordPlace? to, ServiceSettings settings)
    {
        foreach (var place in new[] { from, to }.OfType<RecordPlace>())
            if (place.Server is { } server && StoreRegistration.ProblemOf(server) is { } problem)
                return $"--from or --to is no server: {problem} Accepted: \"Host=db.firm.example;Database=nailcrow;Username=nailcrow;Password=...\".";
        if (from.File is { } file && !File.Exists(file))
            return $"There is no database at {file}; --from says where it is.";
        if (to is null)
            return null;
        if (from.Server is null == to.Server is null)
            return $"{from} and {to} are of one kind. A record moves from a file to a PostgreSQL or back; a file is copied by 'nailcrow admin backup', a "
                + "server with its own tools.";
        if (to.File is { } into && !Directory.Exists(Path.GetDirectoryName(into)))
            return $"{into} is in a folder that is not there.";
        return settings.KeysCertificate is { } files && (TlsCertificate.Problem(files) ?? Keys.Problem(files)) is { } wrong
            ? $"Nailcrow:KeysCertificate: {wrong}"
            : null;
    }

    /// <returns>Null where it cannot be meant.</returns>
    private static Said? Read(string[] args)
    {
        string? from = null,
            to = null;
        var (forget, settings, rest) = (false, new List<string>(), new Queue<string>(args.Skip(1)));
        while (rest.TryDequeue(out var word))
            if (Value(word, "--from") is { } origin)
                from = origin;
            else if (Value(word, "--to") is { } destination)
                to = destination;
            else if (word == "--forget")
                forget = true;
            else if (Value(word, word.Split('=')[0]) is { } setting && word.StartsWith("--Nailcrow:", StringComparison.OrdinalIgnoreCase))
                settings.Add($"{word.Split('=')[0]}={setting}");
            else
                return null;
        return forget == to is null ? new(from, to, [.. settings]) : null;

        string? Value(string word, string option) =>
            word == option && rest.TryDequeue(out var next) ? next
            : word.StartsWith($"{option}=", StringComparison.Ordinal) ? word[(option.Length + 1)..]
            : null;
    }
}
