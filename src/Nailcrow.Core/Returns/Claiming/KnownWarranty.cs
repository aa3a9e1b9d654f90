using Nailcrow.Core.Returns.Fitting;

namespace Nailcrow.Core.Returns.Claiming;

/// <summary>The warranty of one drive, or of all of a model that are not listed by themselves; whose word that is, and of when.</summary>
/// <param name="Serial">The drive; null where it is said of a model.</param>
/// <param name="Model">Maker and name as on the label; null where it is said of one drive.</param>
/// <param name="Source">The maker that answered; null where it stands in the firm's own list.</param>
public sealed record KnownWarranty(string? Serial, string? Model, Warranty Warranty, string? Source, DateTimeOffset SaidAt)
{
    /// <summary>As it goes on after a serial.</summary>
    public string Told(DateOnly today) => Said(today) + (Serial is null ? $" for all {Model}" : "");

    /// <summary>As it goes on after what it is said of, a serial or a model.</summary>
    public string Said(DateOnly today) =>
        $"{Warranty.Told(today)}, {(Source is null ? "by our list of" : $"as {Source} answered on")} {SaidAt.UtcDateTime:yyyy-MM-dd}";

    /// <summary>What is known of a drive: what is said of itself, else of its model.</summary>
    /// <param name="model">As a label or a machine names it; null where nobody has seen it.</param>
    public static KnownWarranty? Of(IEnumerable<KnownWarranty> known, string serial, string? model) =>
        known
            .Where(w => w.Serial == serial || (w.Model is { } listed && DriveModel.IsCalled(listed, model ?? "")))
            .MaxBy(w => w.Serial is not null);
}
