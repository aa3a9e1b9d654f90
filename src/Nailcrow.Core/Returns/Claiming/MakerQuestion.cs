using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Returns.Claiming;

/// <summary>What a maker is asked about a drive.</summary>
[JsonConverter(typeof(KebabEnum<MakerQuestion>))]
public enum MakerQuestion
{
    /// <summary>Until when it is under warranty.</summary>
    Warranty,

    /// <summary>A number to send it back under; the new drive comes first.</summary>
    AdvanceExchange,

    /// <summary>The same; the new drive comes when the old one is there.</summary>
    ReturnFirst,
}
