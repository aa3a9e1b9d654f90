namespace Nailcrow.Core.Appliances;

internal static class NoSuchBay
{
    public static string Sentence(string bay, Snapshot known) =>
        $"There is no bay '{bay}' on this appliance; its bays are {string.Join(", ", known.Bays.Select(b => b.Label))}.";
}
