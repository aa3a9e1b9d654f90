using System.Text;
using CsvHelper;
using Nailcrow.Core.Terms;

namespace Nailcrow.Store.Appliances.Csv;

/// <summary>A row of a file cannot be used, or the file as a whole cannot.</summary>
public sealed class CsvProblem(string message) : Exception(message);

/// <summary>A CSV file read row by row: a head that names columns, commas or semicolons, quotes, a byte-order mark or none.</summary>
internal sealed class CsvTable : IDisposable
{
    // The longest row there is has some notes in it; a longer one is a quote that was never closed.
    private const int LongestRow = 64 * 1024;

    private readonly CsvReader _reader;
    private readonly Dictionary<string, int> _columns;

    private CsvTable(CsvReader reader, Dictionary<string, int> columns) => (_reader, _columns) = (reader, columns);

    /// <summary>The line of the file that the row begins at, from 1.</summary>
    public long Line => _reader.LineNumber;

    /// <exception cref="CsvProblem">The head lacks a column, or names one that is not known.</exception>
    public static CsvTable Open(string file, IReadOnlyList<string> needed, IReadOnlyList<string> possible)
    {
        var reader = CsvReader.FromFile(
            file,
            CsvReaderOptions.Default with
            {
                Separator = Separator(file),
                HasHeader = true,
                MaxRecordSize = LongestRow,
                TrackLineNumbers = true,
                Encoding = Encoding.UTF8,
            },
            FileOptions.SequentialScan
        );
        try
        {
            reader.ReadHeader();
            var heads = (reader.Headers ?? []).Select(h => h.Trim().Trim('\uFEFF').ToLowerInvariant()).ToList();
            if (needed.FirstOrDefault(n => !heads.Contains(n)) is { } missing)
                throw new CsvProblem(
                    $"The first line names the columns; '{missing}' is missing. Needed: {string.Join(", ", needed)}; possible: {string.Join(", ", possible)}."
                );
            if (heads.FirstOrDefault(h => !needed.Contains(h) && !possible.Contains(h)) is { } strange)
                throw new CsvProblem(
                    $"The column '{strange}' is not known. Needed: {string.Join(", ", needed)}; possible: {string.Join(", ", possible)}."
                );
            if (heads.GroupBy(h => h).FirstOrDefault(g => g.Count() > 1) is { } twice)
                throw new CsvProblem($"The column '{twice.Key}' is there twice.");
            return new(reader, heads.Select((h, i) => (h, i)).ToDictionary(c => c.h, c => c.i));
        }
        catch (CsvFormatException e)
        {
            reader.Dispose();
            throw new CsvProblem($"The first line cannot be read: {e.Message}");
        }
        catch
        {
            reader.Dispose();
            throw;
        }
    }

    public bool Read() => _reader.Read();

    /// <summary>A field without the space around it; null where it is empty or there is no such column.</summary>
    public string? this[string column]
    {
        get
        {
            if (!_columns.TryGetValue(column, out var at) || at >= _reader.FieldCount)
                return null;
            var text = _reader.GetString(at)?.Trim();
            if (text?.Contains(EndOfText.Character) == true)
                throw new CsvProblem($"{column} has {EndOfText.Sentence}");
            return string.IsNullOrEmpty(text) ? null
                : text is ['\'', '=' or '+' or '-' or '@', ..] ? text[1..]
                : text; // as an export escapes it
        }
    }

    /// <summary>There is such a column, whatever stands in it.</summary>
    public bool Has(string column) => _columns.ContainsKey(column);

    public string Needed(string column) => this[column] ?? throw new CsvProblem($"{column} is empty.");

    public int? Whole(string column) =>
        this[column] is not { } text ? null
        : int.TryParse(text, out var number) ? number
        : throw new CsvProblem($"{column} is '{text}'; a whole number is expected.");

    public double? Number(string column) =>
        this[column] is not { } text ? null
        : double.TryParse(text, System.Globalization.NumberStyles.Float, System.Globalization.CultureInfo.InvariantCulture, out var number)
        && double.IsFinite(number) // "NaN" is a number to the parser, and to nobody else
            ? number
        : throw new CsvProblem($"{column} is '{text}'; a number with a decimal point is expected.");

    public void Dispose() => _reader.Dispose();

    /// <summary>Whichever of comma, semicolon and tab the first line has most of: spreadsheets write what their country uses.</summary>
    private static char Separator(string file)
    {
        using var reader = new StreamReader(file, Encoding.UTF8, detectEncodingFromByteOrderMarks: true);
        var head = new char[4096];
        var line = new string(head, 0, reader.Read(head, 0, head.Length)).Split('\n')[0];
        return new[] { ',', ';', '\t' }.MaxBy(c => line.Count(l => l == c));
    }
}
