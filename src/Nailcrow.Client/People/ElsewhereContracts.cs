namespace Nailcrow.Client.People;

/// <summary>What is offered at the door beside name and password.</summary>
/// <param name="Elsewhere">A provider of sign-ins; null where none is set.</param>
public sealed record SignInWays(ElsewhereWay? Elsewhere);

/// <param name="Name">What people call it.</param>
/// <param name="At">Where a browser goes for it; with <c>?to=/a/page</c> it ends on that page.</param>
public sealed record ElsewhereWay(string Name, string At);

/// <summary>A sign-in that is done in a browser, on whichever device (RFC 8628).</summary>
/// <param name="Handle">To ask with whether it is done; only whoever began it has it.</param>
/// <param name="Code">What is typed there.</param>
/// <param name="At">Where it is typed.</param>
/// <param name="AtWithCode">The same with the code in it; null where the provider has none.</param>
/// <param name="LastsSeconds">After that, another one is begun.</param>
/// <param name="AgainAfterSeconds">How long to wait before asking.</param>
public sealed record DeviceAsked(string Handle, string Code, string At, string? AtWithCode, int LastsSeconds, int AgainAfterSeconds);

public sealed record DeviceShown(string Handle);

/// <summary>Not done yet.</summary>
/// <param name="AgainAfterSeconds">How long to wait before asking once more.</param>
public sealed record DeviceWaits(int AgainAfterSeconds);

/// <summary>Where a browser goes to say whom a provider of sign-ins means by whoever asked.</summary>
/// <param name="At">Good for five minutes.</param>
public sealed record ElsewhereJoining(string At);
