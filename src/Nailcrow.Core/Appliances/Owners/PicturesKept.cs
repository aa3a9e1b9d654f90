namespace Nailcrow.Core.Appliances.Owners;

/// <summary>How long pictures are kept, as every front end says it.</summary>
public static class PicturesKept
{
    /// <param name="months">So many months after a ticket ends; null for as long as the record.</param>
    /// <param name="from">When they begin to go.</param>
    public static string Told(int? months, DateTimeOffset? from) =>
        months is { } kept && from is { } begin
            ? $"go {Months(kept)} after a ticket ends, from {begin.UtcDateTime:yyyy-MM-dd} on"
            : "are kept as long as the record";

    /// <summary>Why a picture goes by itself.</summary>
    public static string Because(string customer, int months, DateTimeOffset ended) =>
        $"Pictures of {customer} are kept for {Months(months)} after a ticket ends; this one ended by {ended.UtcDateTime:yyyy-MM-dd}.";

    private static string Months(int months) => months == 1 ? "1 month" : $"{months} months";
}
