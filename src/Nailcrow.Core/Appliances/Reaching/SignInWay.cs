using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Appliances.Reaching;

/// <summary>How one signs in at a machine's management interface.</summary>
[JsonConverter(typeof(KebabEnum<SignInWay>))]
public enum SignInWay
{
    /// <summary>Once, for a token that each call brings along (DSP0266, "Redfish session login authentication").</summary>
    Session,

    /// <summary>Name and secret with each call (RFC 7617).</summary>
    Basic,
}
