using Nailcrow.Core.People;

namespace Nailcrow.Client.People;

public sealed record SignInAsk(string Name, string Password);

/// <summary>A bearer token and how long it is good for, in seconds.</summary>
public sealed record Token(string AccessToken, long ExpiresIn);

/// <param name="May">What they may do beside tickets; told of whoever asks, null of others.</param>
/// <param name="Mail">Where reminders go; null where none do.</param>
public sealed record PersonView(
    string Name,
    string FullName,
    IReadOnlyList<Role> Roles,
    IReadOnlyList<Permission>? May = null,
    string? Mail = null
);

/// <param name="Address">As name@place.example; null to send them nothing.</param>
public sealed record PersonMail(string? Address);

public sealed record PeopleList(IReadOnlyList<PersonView> People);

/// <param name="Password">At least 10 characters.</param>
/// <param name="Mail">Where reminders go; null where none do.</param>
public sealed record PersonAsk(string Name, string FullName, string Password, IReadOnlyList<Role> Roles, string? Mail = null);
