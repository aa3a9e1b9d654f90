namespace Nailcrow.Client;

/// <summary>Refusals that a program goes on from, told by their <c>type</c> (RFC 9457, section 3.1.1).</summary>
public static class ProblemTypes
{
    /// <summary>Name and password are right, and a second factor is asked for.</summary>
    public const string SecondFactor = "urn:nailcrow:second-factor";
}
