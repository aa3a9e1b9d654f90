using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances;

/// <summary>What a machine's plate has to say before anybody can find and work on it.</summary>
public static class MachinePlate
{
    private const int MostOfAnAsset = 60;
    private const int MostCharacters = 200;

    /// <summary>What is missing of a new machine, or of its site and customer where those are new too, as a sentence; null where nothing is.</summary>
    public static string? ProblemOfNew(Appliance machine, Site? site, Customer? customer = null) =>
        Missing(machine.Asset) ? "A machine has an asset number: what the firm calls it, such as FSC-0417."
        // It stands in addresses and file names.
        : machine.Asset.Length > MostOfAnAsset || machine.Asset.Any(c => !char.IsAsciiLetterOrDigit(c) && c is not ('-' or '.' or '_'))
            ? $"'{Visible.Text(machine.Asset)}' is no asset number: up to {MostOfAnAsset} letters, digits, dashes and dots."
        : Problem(machine) is { } problem ? problem
        : site is null
            ? customer is null ? null
                : "A customer comes with their site; name a site that is new, or leave the customer out."
        : customer is not null && customer.Name != site.Customer
            ? $"The site is one of '{site.Customer}', and the new customer is '{customer.Name}'."
        : customer?.Problem() is { } no ? no
        : Missing(site.Name) || Missing(site.Customer) || Missing(site.Address) ? "A new site has a name, a customer and an address."
        : site.Name != machine.Site ? $"The machine stands at '{machine.Site}', and the new site is '{site.Name}'."
        : TooLong(site.Name) ?? TooLong(site.Customer) ?? TooLong(site.Address);

    /// <summary>What is missing for a known machine to be found by; null where nothing is.</summary>
    public static string? Problem(Appliance machine) =>
        Missing(machine.Serial) ? "Read the machine's own serial from the sticker of its chassis; it is recognised by that."
        : Missing(machine.Location) ? "Say where it stands: room, rack and unit."
        : TooLong(machine.Serial) ?? TooLong(machine.Location);

    private static bool Missing(string? text) => string.IsNullOrWhiteSpace(text);

    private static string? TooLong(string text) =>
        text.Length > MostCharacters
            ? $"'{Visible.Text(Shortened.To(text, 20))}' has {text.Length} characters; at most {MostCharacters} are taken."
            : null;
}
