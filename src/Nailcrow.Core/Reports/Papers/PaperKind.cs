using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Reports.Papers;

/// <summary>The papers that there can be of a ticket, in the order in which they are needed.</summary>
[JsonConverter(typeof(KebabEnum<PaperKind>))]
public enum PaperKind
{
    /// <summary>The steps, to tick and fill in by hand.</summary>
    RunSheet,

    /// <summary>What was brought and put in, and who has what came out; both sides sign.</summary>
    DeliveryNote,

    /// <summary>On a box that goes back: to whom, which drive, under which authorisation.</summary>
    ReturnLabel,

    /// <summary>In a box that goes back: every drive in it.</summary>
    PackingList,

    /// <summary>A drive was destroyed: how, when, before whose eyes.</summary>
    Destruction,

    /// <summary>The customer keeps a drive: who took it, and what they answer for from then on.</summary>
    Retention,

    ServiceReport,
    Proposal,
}
