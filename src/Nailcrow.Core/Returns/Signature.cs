namespace Nailcrow.Core.Returns;

/// <summary>A name that somebody wrote by hand on a screen, with what stood over it.</summary>
/// <param name="Photo">The picture of it, kept beside the journal.</param>
/// <param name="Sha256">Of the picture's bytes, in hex.</param>
/// <param name="Signed">What was signed, word for word.</param>
/// <param name="SignedSha256">Of that text as UTF-8, in hex: the number that was on the screen beside it.</param>
public sealed record Signature(Guid Photo, string Sha256, string MediaType, long Bytes, string Signed, string SignedSha256);
