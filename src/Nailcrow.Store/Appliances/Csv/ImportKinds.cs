using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Intake;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Stores;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Tickets.Lists;

namespace Nailcrow.Store.Appliances.Csv;

[JsonConverter(typeof(KebabEnum<ImportKind>))]
public enum ImportKind
{
    Customers,
    Sites,
    Appliances,
    Drives,
    Qualified,
    Warranties,
}

/// <summary>What rows are held against: everything they may name.</summary>
internal sealed record ImportKnown(
    IReadOnlySet<string> Sites,
    IReadOnlyDictionary<string, ApplianceModel> Models,
    IReadOnlySet<string> Assets,
    IReadOnlyCollection<string> Engineers,
    IReadOnlyDictionary<string, long> Versions
);

/// <summary>One kind of file: its columns, and what a row of it is.</summary>
internal abstract record ImportColumns(IReadOnlyList<string> Needed, IReadOnlyList<string> Possible)
{
    public static readonly IReadOnlyList<string> Customer = ["customer"];
    public static readonly IReadOnlyList<string> CustomerMore =
    [
        "people",
        "respond-hours",
        "restore-hours",
        "data",
        "data-note",
        "spares",
        "pictures-kept-months",
    ];
    public static readonly IReadOnlyList<string> Site = ["site", "customer", "address", "zone"];
    public static readonly IReadOnlyList<string> SiteMore =
    [
        "access",
        "hours",
        "holidays",
        "respond-hours",
        "restore-hours",
        "latitude",
        "longitude",
    ];
    public static readonly IReadOnlyList<string> Appliance = ["asset", "serial", "model", "site", "location"];
    public static readonly IReadOnlyList<string> ApplianceMore = ["address", "sends-as", "arrays", "expansions"];
    public static readonly IReadOnlyList<string> Drive = ["serial", "model", "size"];
    public static readonly IReadOnlyList<string> DriveMore = ["asset", "bay", "depot", "hours", "used-in"];
    public static readonly IReadOnlyList<string> Qualified = ["appliance-model", "drive-model"];
    public static readonly IReadOnlyList<string> QualifiedMore = ["not-because"];

    public static readonly IReadOnlyList<string> Warranty = ["until"];
    public static readonly IReadOnlyList<string> WarrantyMore = ["serial", "model", "from", "terms"];

    public static (IReadOnlyList<string> Needed, IReadOnlyList<string> Possible) Of(ImportKind kind) =>
        kind switch
        {
            ImportKind.Customers => (Customer, CustomerMore),
            ImportKind.Sites => (Site, SiteMore),
            ImportKind.Appliances => (Appliance, ApplianceMore),
            ImportKind.Drives => (Drive, DriveMore),
            ImportKind.Warranties => (Warranty, WarrantyMore),
            _ => (Qualified, QualifiedMore),
        };
}

/// <summary>Makes rows of the tables of rows of files. Each throws <see cref="CsvProblem"/> with what is wrong.</summary>
internal static class ImportRows
{
    public static SiteRow Site(CsvTable row)
    {
        var site = new Site(
            row.Needed("site"),
            row.Needed("customer"),
            row.Needed("address"),
            row.Needed("zone"),
            row["access"],
            row["hours"],
            row["holidays"]?.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Day).ToList(),
            row.Whole("respond-hours"),
            row.Whole("restore-hours"),
            row.Number("latitude"),
            row.Number("longitude")
        );
        if (new ReferenceData([], [site], []).Problems(new HashSet<string>(), new HashSet<string>()).FirstOrDefault() is { } problem)
            throw new CsvProblem(problem);
        return SiteRow.Of(site);
    }

    public static CustomerRow Customer(CsvTable row)
    {
        var data = DataAgreement.AskEachTime;
        if (row["data"] is { } said && !Words.Parse<DataAgreement>(said, "agreement on data").Is(out data, out var reason))
            throw new CsvProblem(reason);
        var customer = new Customer(
            row.Needed("customer"),
            PeopleCell.Read(row["people"]),
            row.Whole("respond-hours"),
            row.Whole("restore-hours"),
            data,
            row["data-note"],
            row["spares"],
            row.Whole("pictures-kept-months")
        );
        return customer.Problem() is { } problem
            ? throw new CsvProblem(problem)
            : new() { Name = customer.Name, Body = StoredJson.Text(customer, JournalJson.Default.Customer) };
    }

    public static ApplianceRow Appliance(CsvTable row, ImportKnown known)
    {
        var asset = row.Needed("asset").ToUpperInvariant();
        var (arrays, expansions) = (ArrayCell.Read(row["arrays"]), ExpansionCell.Read(row["expansions"]));
        var appliance = new Appliance(
            asset,
            row.Needed("serial"),
            row.Needed("model"),
            row.Needed("site"),
            row.Needed("location"),
            row["address"],
            arrays,
            expansions,
            SendsAs: row["sends-as"]
        );
        if (!known.Models.TryGetValue(appliance.Model, out var model))
            throw new CsvProblem(
                $"model is '{appliance.Model}', which is not known; known: {string.Join(", ", known.Models.Keys.Take(20))}."
            );
        if (!known.Sites.Contains(appliance.Site))
            throw new CsvProblem($"site is '{appliance.Site}', which is no site here; import its site first.");
        // A model of an expansion that is not known is told by the same rule as the machine's own.
        var models = (expansions ?? []).Select(e => known.Models.GetValueOrDefault(e.Model)).OfType<ApplianceModel>().Prepend(model);
        if (
            new ReferenceData([.. models.DistinctBy(m => m.Id)], [], [appliance])
                .Problems(new HashSet<string>(), known.Sites)
                .FirstOrDefault() is
            { } problem
        )
            throw new CsvProblem(problem);
        return new()
        {
            Asset = asset,
            Serial = appliance.Serial,
            Model = appliance.Model,
            Site = appliance.Site,
            Location = appliance.Location,
            Address = appliance.Address,
            Arrays = JsonSerializer.Serialize([.. arrays ?? []], JournalJson.Default.ArrayDesignArray),
            Expansions = expansions is null ? null : JsonSerializer.Serialize([.. expansions], JournalJson.Default.ExpansionArray),
            SendsAs = appliance.SendsAs,
            Version = known.Versions.GetValueOrDefault(asset) + 1,
        };
    }

    public static DriveRow Drive(CsvTable row, ImportKnown known)
    {
        var serial = Serial(row.Needed("serial"));
        var (asset, depot) = (row["asset"]?.ToUpperInvariant(), row["depot"]);
        if (asset is null == depot is null)
            throw new CsvProblem("A drive is either in an appliance (asset, and bay where known) or in a depot; give one of the two.");
        if (asset is not null && !known.Assets.Contains(asset))
            throw new CsvProblem($"asset is '{asset}', which is no appliance here; import the appliances first.");
        if (depot is not null && NamedPlace.Of(Holder.OfPlace(depot), [depot], known.Engineers, false) is NamedPlace.Nobodys(var says))
            throw new CsvProblem($"depot is '{depot}': {says}");
        var bytes = ArrayCell.Bytes(row.Needed("size"));
        if (bytes < ByteSize.FewestOfADrive)
            throw new CsvProblem($"size is {bytes} bytes; no drive is under 1 GB. Write a unit: 8TB.");
        return new()
        {
            Serial = serial,
            SerialReversed = Projecting.Reversed(serial) ?? "",
            Model = row.Needed("model"),
            Bytes = bytes,
            Asset = asset,
            Bay = row["bay"],
            Depot = depot,
            Hours = row.Whole("hours"),
            UsedIn = row["used-in"],
        };
    }

    public static QualifiedRow Qualified(CsvTable row, ImportKnown known)
    {
        var model = row.Needed("appliance-model");
        if (!known.Models.ContainsKey(model))
            throw new CsvProblem(
                $"appliance-model is '{model}', which is not known; known: {string.Join(", ", known.Models.Keys.Take(20))}."
            );
        return new()
        {
            ApplianceModel = model,
            DriveModel = row.Needed("drive-model"),
            NotBecause = row.Has("not-because") ? row["not-because"] ?? "" : null,
        };
    }

    /// <summary>Of one drive, or of a model: all of it that are not listed by themselves.</summary>
    public static WarrantyRow Warranty(CsvTable row, DateTimeOffset now)
    {
        if (row["serial"] is null == row["model"] is null)
            throw new CsvProblem("A warranty is one drive's or a model's; give its serial, or the model of all that have the same.");
        var (until, from) = (Day("until", row.Needed("until")), row["from"] is { } first ? Day("from", first) : (DateOnly?)null);
        if (from > until)
            throw new CsvProblem($"It would begin on {from:yyyy-MM-dd}, after its end on {until:yyyy-MM-dd}.");
        return WarrantyRow.Of(
            new(row["serial"] is { } serial ? Serial(serial) : null, row["model"], new(until, from, row["terms"]), null, now)
        );
    }

    private static string Serial(string text) =>
        SerialNumber.Parse(text) switch
        {
            Parsed<SerialNumber>.Ok(var read) => SerialNumber.Normalise(read.Text),
            Parsed<SerialNumber>.Refused(var reason) => throw new CsvProblem(reason),
            _ => throw new System.Diagnostics.UnreachableException(),
        };

    private static DateOnly Day(string text) => Day("holidays", text, ", with spaces between");

    private static DateOnly Day(string column, string text, string more = "") =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            ? day
            : throw new CsvProblem($"{column} has '{text}'; write days as 2026-12-25{more}.");
}
