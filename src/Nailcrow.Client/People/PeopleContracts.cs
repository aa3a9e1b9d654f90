using Nailcrow.Core.People;

namespace Nailcrow.Client.People;

public sealed record SignInAsk(string Name, string Password);

/// <summary>A bearer token and how long it is good for, in seconds.</summary>
public sealed record Token(string AccessToken, long ExpiresIn);

/// <param name="May">What they may do beside tickets; told of whoever asks, null of others.</param>
public sealed record PersonView(string Name, string FullName, IReadOnlyList<Role> Roles, IReadOnlyList<Permission>? May = null);

public sealed record PeopleList(IReadOnlyList<PersonView> People);

/// <param name="Password">At least 10 characters.</param>
public sealed record PersonAsk(string Name, string FullName, string Password, IReadOnlyList<Role> Roles);
