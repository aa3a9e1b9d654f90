using Nailcrow.Core.People;

namespace Nailcrow.Client.People;

/// <param name="Code">The six digits their device shows, or a recovery code; only where they have a second factor.</param>
public sealed record SignInAsk(string Name, string Password, string? Code = null);

/// <summary>A bearer token and how long it is good for, in seconds.</summary>
public sealed record Token(string AccessToken, long ExpiresIn);

/// <param name="May">What they may do beside tickets; told of whoever asks, null of others.</param>
/// <param name="Mail">Where reminders go; null where none do.</param>
/// <param name="DisabledAt">Since when they may not come in; null while they may.</param>
/// <param name="MustChange">Their password was given to them, and is good for choosing one of their own.</param>
/// <param name="FirstUntil">Until when; after that they are given another one. Null where it has no end.</param>
/// <param name="HasSecondFactor">They show something beside their password; told to whoever looks after people, and of oneself.</param>
/// <param name="MustSetUp">Their roles take a second factor, and they are in to set one up; told of oneself.</param>
/// <param name="Elsewhere">The provider of sign-ins they come in by; null where by none. Told as the second factor is.</param>
/// <param name="HasPassword">They can come in with one; told as the second factor is.</param>
/// <param name="Withheld">What they may not do, and what that takes; told of oneself.</param>
public sealed record PersonView(
    string Name,
    string FullName,
    IReadOnlyList<Role> Roles,
    IReadOnlyList<Permission>? May = null,
    string? Mail = null,
    DateTimeOffset? DisabledAt = null,
    string? DisabledBecause = null,
    bool MustChange = false,
    DateTimeOffset? FirstUntil = null,
    bool? HasSecondFactor = null,
    bool MustSetUp = false,
    string? Elsewhere = null,
    bool HasPassword = true,
    IReadOnlyList<Withheld>? Withheld = null
);

/// <param name="Address">As name@place.example; null to send them nothing.</param>
public sealed record PersonMail(string? Address);

public sealed record PeopleList(IReadOnlyList<PersonView> People);

/// <param name="Name">2 to 40 of a to z, 0 to 9, dot and hyphen. It is given once: what they write says it for ever.</param>
/// <param name="Password">Their first, 12 to 128 characters, which they have to change; null to have one made.</param>
/// <param name="Mail">Where reminders go; null where none do.</param>
public sealed record PersonAsk(string Name, string FullName, string? Password, IReadOnlyList<Role> Roles, string? Mail = null);

/// <param name="FirstPassword">Shown this once; null where the caller said it.</param>
public sealed record PersonLetIn(PersonView Person, string? FirstPassword);

public sealed record PersonName(string FullName);

public sealed record PersonRoles(IReadOnlyList<Role> Roles);

/// <param name="Because">Why, for whoever wonders later; 1 to 400 characters.</param>
public sealed record PersonOut(string Because);

/// <param name="Password">12 to 128 characters; null to have one made.</param>
public sealed record PasswordGiven(string? Password = null);

/// <param name="Now">The one they have.</param>
/// <param name="Next">12 to 128 characters, none of those that are tried first.</param>
public sealed record OwnPassword(string Now, string Next);
