using Nailcrow.Core.Appliances.Reaching;

namespace Nailcrow.Appliances.Reaching;

/// <summary>A machine shows a certificate that nobody has looked at, or another than the one somebody said yes to.</summary>
public sealed class UnknownCertificateException(ShownCertificate shown, bool another) : IOException("An unknown certificate.")
{
    public ShownCertificate Shown => shown;

    /// <summary>True where another one was trusted before.</summary>
    public bool Another => another;
}
