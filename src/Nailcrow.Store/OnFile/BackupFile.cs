using System.IO.Compression;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Store.OnFile;

/// <summary>
/// One file with all that is needed to go on: the database with its pictures, the seals, and where asked for the keys. A ZIP
/// archive, so that anybody can look into it.
/// </summary>
public sealed class BackupFile(Database database, SealPlaces places, DatabaseFile? file = null)
{
    public const string MediaType = "application/zip";

    private const string DatabaseEntry = "nailcrow.db";

    // A copy is written to without a pause; what has been left alone for so long is nobody's any more.
    private static readonly TimeSpan NobodyWrites = TimeSpan.FromHours(1);

    private const string SealsFolder = "seals/";
    private const string KeysFolder = "keys/";

    private const string WithKeys =
        "The service's keys are in it: whoever reads this file can sign in as anybody and sign seals. Keep it as you keep the machine.";
    private const string WithoutKeys =
        "The service's keys are not in it. Restored without them, everything that was recorded is there; everybody signs in anew, seals go on under a new key, "
        + "and secrets of event senders, push addresses and calendars have to be given out again. To keep those, keep the folder nailcrow.db.keys as well.";

    /// <returns>The file, open at its beginning; it is gone when it is closed.</returns>
    public async Task<Stream> MakeAsync(bool keys, CancellationToken ct)
    {
        if (file is null)
            throw new NotSupportedException("Only a SQLite file is copied this way; back a database server up with its own tools.");
        // Beside the database: what is as secret as it, and as large, goes where it is.
        var (copy, whole) = ($"{file.Path}.copying-{Guid.NewGuid():N}", $"{file.Path}.backup-{Guid.NewGuid():N}");
        try
        {
            OwnFiles.Keep(copy);
            await database.BackupAsync(copy, ct);
            await using (var zip = new ZipArchive(new FileStream(whole, OwnFiles.ToWrite(FileMode.CreateNew)), ZipArchiveMode.Create))
                await FillAsync(zip, copy, keys, ct);
        }
        catch
        {
            File.Delete(whole);
            throw;
        }
        finally
        {
            foreach (var part in new[] { copy, $"{copy}-wal", $"{copy}-shm", $"{copy}-journal" })
                File.Delete(part);
        }
        return new FileStream(
            whole,
            FileMode.Open,
            FileAccess.Read,
            FileShare.Read,
            1 << 16,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
    }

    /// <summary>
    /// Removes what a backup that was killed half-way left beside the database: as secret as it, as large, and of use to nobody.
    /// </summary>
    public void Sweep(DateTimeOffset now)
    {
        if (file is null)
            return;
        var (folder, name) = (Path.GetDirectoryName(Path.GetFullPath(file.Path)) ?? ".", Path.GetFileName(file.Path));
        foreach (var left in new[] { $"{name}.copying-*", $"{name}.backup-*" }.SelectMany(kind => Directory.EnumerateFiles(folder, kind)))
            if (now - File.GetLastWriteTimeUtc(left) > NobodyWrites)
                File.Delete(left);
    }

    /// <summary>Puts a backup where nothing is yet.</summary>
    /// <returns>Null when all is there, else why nothing was done.</returns>
    public static string? Restore(string backup, string database)
    {
        if (!File.Exists(backup))
            return $"There is no file {backup}.";
        if (new[] { database, $"{database}-wal" }.FirstOrDefault(File.Exists) is { } there)
            return $"{there} is there already; a backup is restored only where nothing is. Name another place with --Nailcrow:Data, or move it away.";
        try
        {
            using var zip = ZipFile.OpenRead(backup);
            if (zip.GetEntry(DatabaseEntry) is not { } data)
                return $"{backup} holds no {DatabaseEntry}; a file made by 'nailcrow admin backup' does.";
            var draft = $"{database}.restoring";
            Extract(data, draft);
            foreach (var entry in zip.Entries.Where(e => e.Name.Length > 0 && e.FullName != DatabaseEntry))
                if (PlaceOf(entry, database) is { } place && !File.Exists(place)) // seals and keys that are here are nobody's to replace
                    Extract(entry, place);
            File.Move(draft, database); // last, so that a database that is there has all that belongs to it
            return null;
        }
        catch (InvalidDataException)
        {
            return $"{backup} is no backup, or only part of one: it cannot be read as a ZIP archive.";
        }
    }

    private async Task FillAsync(ZipArchive zip, string copy, bool keys, CancellationToken ct)
    {
        await using (var readme = new StreamWriter(zip.CreateEntry("README.txt").Open()))
            await readme.WriteAsync(
                $"A backup of Nailcrow. 'nailcrow-service restore FILE' puts it where nothing is yet.\n{(keys ? WithKeys : WithoutKeys)}\n"
            );
        await zip.CreateEntryFromFileAsync(copy, DatabaseEntry, CompressionLevel.Fastest, ct);
        await AddFolderAsync(zip, places.Folder, SealsFolder, ct);
        if (keys)
            await AddFolderAsync(zip, places.KeyFolder, KeysFolder, ct);
    }

    private static async Task AddFolderAsync(ZipArchive zip, string folder, string into, CancellationToken ct)
    {
        if (Directory.Exists(folder))
            foreach (var one in Directory.EnumerateFiles(folder).Order(StringComparer.Ordinal))
                await zip.CreateEntryFromFileAsync(one, into + Path.GetFileName(one), CompressionLevel.Fastest, ct);
    }

    /// <summary>Only names that we make ourselves are taken from an archive, and no path of it.</summary>
    private static string? PlaceOf(ZipArchiveEntry entry, string database) =>
        entry.FullName == SealsFolder + entry.Name ? Path.Combine($"{database}.seals", entry.Name)
        : entry.FullName == KeysFolder + entry.Name ? Path.Combine($"{database}.keys", entry.Name)
        : null;

    private static void Extract(ZipArchiveEntry entry, string place)
    {
        OwnFiles.Folder(Path.GetDirectoryName(place));
        using var from = entry.Open();
        using var into = new FileStream(place, OwnFiles.ToWrite(FileMode.Create));
        from.CopyTo(into);
        into.Flush(flushToDisk: true);
    }
}
