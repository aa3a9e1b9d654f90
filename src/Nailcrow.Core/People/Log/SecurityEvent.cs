using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.People.Log;

/// <summary>What the security log keeps: who came in or tried to, and who changed what others may do or what runs here.</summary>
[JsonConverter(typeof(KebabEnum<SecurityEvent>))]
public enum SecurityEvent
{
    SignedIn,
    SignInRefused,

    /// <summary>So many wrong passwords that further tries have to wait.</summary>
    SignInSlowed,
    SignedOut,
    SessionEnded,
    PersonAdded,
    PersonRenamed,
    RolesChanged,
    PersonDisabled,
    PersonEnabled,
    PersonLeft,

    /// <summary>By somebody else; it has to be changed by whoever it is for.</summary>
    PasswordGiven,
    PasswordChanged,

    /// <summary>One-time codes or a passkey.</summary>
    SecondFactorSetUp,
    SecondFactorEnded,

    /// <summary>By who looks after people, for somebody who has lost theirs.</summary>
    SecondFactorTakenAway,
    RecoveryCodesMade,

    /// <summary>Somebody came in with a code from paper, and has one less.</summary>
    RecoveryCodeUsed,

    /// <summary>Where mails for somebody go, by themselves or by who looks after people.</summary>
    MailChanged,

    /// <summary>Somebody said whom a provider of sign-ins means by them: it lets them in from then on.</summary>
    ElsewhereJoined,
    ElsewhereParted,
    KeyMade,
    KeyEnded,

    /// <summary>Its day comes near, and whoever it acts for is told.</summary>
    KeyEndsSoon,

    /// <summary>On the machine itself, beside the service.</summary>
    LetBackIn,

    /// <summary>A call that its caller's roles do not allow.</summary>
    CallRefused,

    /// <summary>A name and a secret for a machine.</summary>
    MachineSignInGiven,
    MachineSignInTakenAway,

    /// <summary>Somebody said yes to a machine's certificate.</summary>
    MachineTrusted,
    RuleKept,
    ProcedurePublished,
    ProcedureWithdrawn,
    ProcedureBroughtBack,
    ListExported,
    BackedUp,

    /// <summary>On the machine itself: what secrets, cookies and tokens were under opens nothing any more.</summary>
    KeysRenewed,
}

/// <summary>One line of the log. Its text is kept and chained as it was written, like an entry's.</summary>
/// <param name="Seq">Given as it comes in, from 1; no part of its text.</param>
/// <param name="By">Who did it; of a sign-in, the name that was typed.</param>
/// <param name="About">Whom or what it was done to; null where it is whoever did it.</param>
/// <param name="Address">Where they were, as an IP address; null where nobody knows.</param>
/// <param name="Detail">What a reader needs beside that, such as the roles; never a secret.</param>
public sealed record SecurityLine(
    long Seq,
    DateTimeOffset At,
    string By,
    SecurityEvent What,
    string? About = null,
    string? Address = null,
    string? Detail = null
);
