using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Procedures.Checked;

/// <summary>What has to hold on every path of every procedure, in the order the work is done; and what makes a procedure no good in itself.</summary>
[JsonConverter(typeof(KebabEnum<SafetyRule>))]
public enum SafetyRule
{
    /// <summary>No drive is pulled while its array rebuilds, or where that would be fatal, without a lead's go-ahead.</summary>
    PullIsAllowed,

    /// <summary>No drive is pulled before machine and bay are each known by two marks.</summary>
    PlaceIsKnown,

    /// <summary>What came out is compared before it leaves its carrier; a wrong drive only goes back.</summary>
    SerialIsCompared,

    /// <summary>Between pull and insert lies the model's wait.</summary>
    WaitIsKept,

    /// <summary>Nothing is erased without naming bay and serial.</summary>
    ErasedByName,

    /// <summary>What was switched on, opened or slid out is put right on every path.</summary>
    PutRight,

    /// <summary>The end is reached only with redundancy seen to come back, and a snapshot after.</summary>
    ProvenDone,

    /// <summary>What is not as expected has somewhere to go.</summary>
    WayOut,

    /// <summary>Things are done in an order in which they can be done.</summary>
    Order,

    /// <summary>Every step can be reached.</summary>
    Reached,

    /// <summary>From every step an end can be reached.</summary>
    Ends,

    /// <summary>Every gate's fact comes from somewhere.</summary>
    Supplied,

    /// <summary>What is asked is used.</summary>
    Used,

    /// <summary>What a text says of drives, the step declares.</summary>
    Declared,
}
