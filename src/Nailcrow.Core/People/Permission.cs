using System.Text.Json.Serialization;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.People;

/// <summary>What is done beside tickets, and takes a role. What is done on a ticket is told with its moves.</summary>
[JsonConverter(typeof(KebabEnum<Permission>))]
public enum Permission
{
    BringListsIn,
    ChangeMachines,

    /// <summary>What a machine is come into with, and whether its certificate is its own.</summary>
    ReachMachines,

    /// <summary>Whoever stands before a machine that nobody knows reads its plate.</summary>
    AddMachines,
    ChangeCustomers,
    KeepStores,

    /// <summary>What lies in one's own van, which nobody else looks into.</summary>
    CountOwnVan,

    /// <summary>All open tickets of somebody, in one step.</summary>
    HandOverAll,
    WriteOff,
    SendAgain,
    MakeRules,
    PublishProcedures,
    LookAfterPeople,

    /// <summary>Who came in, and who changed what others may do.</summary>
    ReadSecurityLog,
    KeepHouse,
}

/// <summary>What somebody may not do, and the roles of which one is enough for it.</summary>
public sealed record Withheld(Permission Permission, IReadOnlyList<Role> Takes);

/// <summary>Which roles each takes; one of them is enough. The service asks here, and tells everybody what they may.</summary>
public static class Permissions
{
    public static IReadOnlyCollection<Role> Of(Permission permission) =>
        permission switch
        {
            Permission.BringListsIn or Permission.ChangeMachines or Permission.ChangeCustomers or Permission.MakeRules =>
            [
                Role.Dispatcher,
                Role.Lead,
                Role.Admin,
            ],
            Permission.AddMachines => [Role.Engineer, Role.Dispatcher, Role.Lead, Role.Admin],
            Permission.SendAgain => [Role.Engineer, Role.Stores, Role.Dispatcher, Role.Lead, Role.Admin],
            Permission.KeepStores => [Role.Stores, Role.Dispatcher, Role.Lead],
            Permission.CountOwnVan => [Role.Engineer],
            Permission.HandOverAll => [Role.Dispatcher, Role.Lead],
            Permission.WriteOff => [Role.Lead],
            Permission.PublishProcedures or Permission.ReachMachines => [Role.Lead, Role.Admin],
            _ => [Role.Admin],
        };

    public static IReadOnlyList<Permission> Of(Actor actor) =>
        [.. Enum.GetValues<Permission>().Where(permission => actor.MayActAs(Of(permission)))];

    public static IReadOnlyList<Withheld> WithheldFrom(Actor actor) =>
        [
            .. Enum.GetValues<Permission>()
                .Where(permission => !actor.MayActAs(Of(permission)))
                .Select(permission => new Withheld(permission, [.. Of(permission)])),
        ];
}
