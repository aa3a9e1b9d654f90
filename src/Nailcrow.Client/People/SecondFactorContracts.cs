using System.Text.Json;

namespace Nailcrow.Client.People;

/// <summary>What somebody shows beside a password.</summary>
/// <param name="CodesSince">Since when they have one-time codes; null where they have none.</param>
/// <param name="RecoveryCodes">How many of them were not used yet.</param>
/// <param name="Needed">Their roles take a second factor.</param>
public sealed record SecondFactorView(DateTimeOffset? CodesSince, IReadOnlyList<PasskeyView> Passkeys, int RecoveryCodes, bool Needed);

/// <param name="Id">Of the credential, in base64url.</param>
/// <param name="Name">As its owner calls it.</param>
public sealed record PasskeyView(string Id, string Name, DateTimeOffset Since);

/// <summary>The password one has, said once more before what one comes in with is changed.</summary>
public sealed record PasswordSaid(string Password);

/// <summary>A key for a device that shows one-time codes (RFC 6238: SHA-1, 30 s, 6 digits). It counts once a code of it came back.</summary>
/// <param name="Key">To be typed in, in base 32 (RFC 4648).</param>
/// <param name="KeyUri">The same for a device that reads it.</param>
/// <param name="Picture">That as a QR code (ISO/IEC 18004), a row each, 1 for dark and 0 for light, with its quiet zone.</param>
public sealed record CodesOffered(string Key, string KeyUri, IReadOnlyList<string> Picture);

/// <param name="Code">Six digits.</param>
public sealed record CodeSaid(string Code);

/// <param name="RecoveryCodes">Shown this once, to be kept on paper, each good once; null where there are some already.</param>
public sealed record SecondFactorSet(SecondFactorView Now, IReadOnlyList<string>? RecoveryCodes);

/// <param name="State">To be sent back with what the browser answers, within five minutes.</param>
/// <param name="Options">For the browser, as WebAuthn's JSON has it.</param>
public sealed record PasskeyAsked(string State, JsonElement Options);

/// <param name="Credential">What the browser made, as WebAuthn's JSON has it.</param>
/// <param name="Name">1 to 60 characters, as "blue key on the ring".</param>
public sealed record PasskeyMade(string State, JsonElement Credential, string Name);

/// <param name="Credential">What the browser showed, as WebAuthn's JSON has it.</param>
public sealed record PasskeyShown(string State, JsonElement Credential);
