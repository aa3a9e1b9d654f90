namespace Nailcrow.Appliances.Redfish;

/// <summary>A machine's answer lacks what the schema promises, or points where it must not.</summary>
internal sealed class RedfishException(string message) : Exception(message);
