using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;
using Nailcrow.Core.Appliances.Models;
using Nailcrow.Core.Appliances.Owners;

namespace Nailcrow.Client.Appliances;

/// <summary>An appliance with its site, its customer and its model.</summary>
/// <param name="Version">Send back as <c>If-Match</c> when changing it.</param>
/// <param name="Blank">What a person starts from who types its first snapshot.</param>
/// <param name="Drawing">Its enclosures as one stands before them.</param>
public sealed record ApplianceView(
    Appliance Appliance,
    Site Site,
    Customer Customer,
    ApplianceModel Model,
    IReadOnlyList<ChassisDrawing> Drawing,
    long Version,
    Snapshot Blank
);

/// <param name="Next">Pass as <c>after</c> for the next page; null at the end.</param>
public sealed record AppliancePage(IReadOnlyList<ApplianceView> Appliances, string? Next);

/// <summary>The bays of a machine now, as it says itself, with what pulling each would do.</summary>
public sealed record BaysView(Snapshot Snapshot, IReadOnlyList<BayVerdict> Verdicts, bool? LocatorOn);

/// <summary>A machine nobody has heard of, as its plate says.</summary>
/// <param name="Site">Where it stands, where that is a new site too; null where the appliance names one that is known.</param>
/// <param name="Customer">Whose site it is, where nobody knows them yet and more than their name is to be kept.</param>
public sealed record MachineAsk(Appliance Appliance, Site? Site = null, Customer? Customer = null);

/// <summary>A customer with its sites.</summary>
/// <param name="Machines">How many appliances stand there.</param>
/// <param name="Version">Send back as <c>If-Match</c> when changing it.</param>
/// <param name="PicturesGoFrom">When pictures begin to go, where they are kept for a time: a week after that was agreed here. Null where
/// they are kept as long as the record.</param>
/// <param name="Pictures">How long they are kept, in words.</param>
/// <param name="Promise">What was promised to them as a whole, in words; empty where a service of 0.1.0 answers.</param>
public sealed record CustomerView(
    Customer Customer,
    IReadOnlyList<string> Sites,
    int Machines,
    string Version,
    DateTimeOffset? PicturesGoFrom = null,
    string Pictures = "",
    string Promise = ""
);

/// <param name="Next">Pass as <c>after</c> for the next page; null at the end.</param>
/// <param name="Promises">What was promised to each as a whole, in words, in their order; a service of 0.1.0 does not say it.</param>
public sealed record CustomerPage(IReadOnlyList<Customer> Customers, string? Next, IReadOnlyList<string>? Promises = null);

/// <summary>Where machines stand.</summary>
public sealed record SiteList(IReadOnlyList<Site> Sites);

/// <summary>What there was to be known of a machine, and what was kept about it before anybody knew it.</summary>
/// <param name="Waiting">Messages in the intake list that are about it, and can be made tickets now.</param>
public sealed record MachineAdded(ApplianceView Machine, int Waiting);

public sealed record Loaded(int Models, int Sites, int Appliances);
