namespace Nailcrow.Core.People.Log;

/// <summary>
/// What somebody is told of how they come in: whatever was changed of it, by themselves or by another, is news to whoever did not do it
/// (OWASP ASVS 4, 2.2.3).
/// </summary>
public static class SignInNews
{
    /// <summary>What there can be news of.</summary>
    public static readonly IReadOnlyCollection<SecurityEvent> Kinds =
    [
        .. Enum.GetValues<SecurityEvent>().Where(kind => Told(new(0, default, "", kind)) is not null),
    ];

    /// <summary>Who is told.</summary>
    public static string Whose(SecurityLine line) => line.What == SecurityEvent.KeyMade ? line.By : line.About ?? line.By;

    /// <summary>What happened, to whoever it is about; null where it is no news.</summary>
    public static string? Told(SecurityLine line) =>
        line.What switch
        {
            SecurityEvent.RolesChanged => $"{line.By} changed what you may do: from {line.Detail}.",
            SecurityEvent.PasswordGiven => $"{line.By} gave you a new password, which you have to change.",
            SecurityEvent.PasswordChanged => "Your password was changed.",
            SecurityEvent.SecondFactorSetUp => $"A second factor was set up: {line.Detail}.",
            SecurityEvent.SecondFactorEnded => $"A second factor opens nothing any more: {line.Detail}.",
            SecurityEvent.SecondFactorTakenAway => $"{line.By} took your second factor away; your password alone lets you in.",
            SecurityEvent.RecoveryCodesMade => "Recovery codes were made; those before are good for nothing.",
            SecurityEvent.RecoveryCodeUsed => $"One of your recovery codes was used to sign in; {line.Detail}.",
            SecurityEvent.ElsewhereJoined => $"Whoever {line.Detail} says is you comes in here as you.",
            SecurityEvent.ElsewhereParted => $"{line.Detail} does not let you in here any more.",
            SecurityEvent.KeyMade => $"A key for a script was made that acts in your name: '{line.About}', {line.Detail}.",
            SecurityEvent.KeyEndsSoon =>
                $"A key for a script that acts in your name ends soon: {line.Detail}. Make another, and put it where this one is.",
            SecurityEvent.MailChanged => $"{line.By} changed where mails for you go: from {line.Detail}.",
            SecurityEvent.LetBackIn => "You were let in on the machine itself, as an administrator, with a new password.",
            _ => null,
        };
}
