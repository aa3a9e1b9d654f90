namespace Nailcrow.Core.People;

/// <summary>Who is doing this, and with which roles.</summary>
public sealed record Actor(string Name, IReadOnlyCollection<Role> Roles)
{
    /// <summary>The service itself: reads machines, and notes what it knows of a serial.</summary>
    public static readonly Actor Service = new("nailcrow", Enum.GetValues<Role>());

    public bool MayActAs(IReadOnlyCollection<Role> any) => any.Any(Roles.Contains);
}
