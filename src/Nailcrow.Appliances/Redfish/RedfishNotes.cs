using System.Diagnostics;
using System.Text.Json;
using Nailcrow.Appliances.Reaching;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Reaching;
using Nailcrow.Core.Terms;

namespace Nailcrow.Appliances.Redfish;

/// <summary>What each step of a look came to, for somebody who tries whether a machine can be read. A look that nobody follows takes the same steps.</summary>
internal sealed class RedfishNotes
{
    private readonly List<TrialStep> _steps = [];
    private readonly Stopwatch _since = Stopwatch.StartNew();
    private string _doing = "The management address";

    public IReadOnlyList<TrialStep> Steps => _steps;

    /// <param name="came">Says what came of it.</param>
    public async Task<T> StepAsync<T>(string what, Func<Task<T>> ask, Func<T, string> came)
    {
        Begin(what);
        var answer = await ask();
        Done(came(answer));
        return answer;
    }

    public T Step<T>(string what, Func<T> make, Func<T, string> came)
    {
        Begin(what);
        var made = make();
        Done(came(made));
        return made;
    }

    /// <summary>The step that was being taken ended it.</summary>
    public void Ended(string why) => _steps.Add(new(_doing, false, why, _since.ElapsedMilliseconds));

    public void Begin(string what)
    {
        _doing = what;
        _since.Restart();
    }

    public void Done(string came) => _steps.Add(new(_doing, true, Visible.Text(came), _since.ElapsedMilliseconds));

    /// <summary>How it answered, and how one came in.</summary>
    public static string Root(JsonElement root, MachineKey key) =>
        $"answers as Redfish {root.Text("RedfishVersion") ?? "of no told version"}"
        + (root.Text("Product") is { } product ? $", {product}" : "")
        + (key.Trusted is null ? "" : ", with the certificate somebody said yes to")
        + (
            key.Name is { } name
                ? $"; one signs in as '{name}', by {(key.Way == SignInWay.Session ? "a session" : "name and secret with each call")}"
                : "; nobody signs in"
        );

    /// <summary>Bays, arrays, and what is missing of them.</summary>
    public static string Made(MachineLook look) =>
        $"{Several(look.Snapshot.Bays.Count, "bay")}, {look.Snapshot.Bays.Count(b => b.Role == BayRole.Empty)} empty; "
        + (
            look.Snapshot.Arrays.Count == 0
                ? "no array"
                : string.Join(
                    ", ",
                    look.Snapshot.Arrays.Select(a =>
                        $"{a.Name} ({Words.Of(a.Level)}, {Words.Of(a.State)}, {look.Snapshot.MembersOf(a)} of {a.DesignMembers} members)"
                    )
                )
        )
        + (look.Snapshot.Gaps is { } gaps ? $". Not read: {string.Join(" ", gaps)}" : "");

    private static string Several(int count, string of) => $"{count} {of}{(count == 1 ? "" : "s")}";

    public static string Chassis(IReadOnlyList<JsonElement> all) =>
        Told(all, c => $"chassis {c.Text("Id")} (serial {c.Text("SerialNumber") ?? "not told"})");

    public static string Storages(IReadOnlyList<JsonElement> all) =>
        Told(
            all,
            s =>
                s.Items("StorageControllers").Count is > 0 and var inside
                    ? $"unit {s.Text("Id")} ({Several(inside, "controller")}: {string.Join(", ", s.Items("StorageControllers").Select(Health))})"
                    : $"unit {s.Text("Id")}"
        );

    public static string Drives(IReadOnlyList<JsonElement> all) =>
        all.Count == 0 ? "none" : $"{Several(all.Count, "drive")}, {all.Count(d => d.Text("SerialNumber") is not null)} with a serial";

    public static string Volumes(IReadOnlyList<JsonElement> all) =>
        Told(all, v => $"{v.Text("Name") ?? v.Text("Id")} ({v.Text("RAIDType") ?? "no level told"})");

    private static string Told(IReadOnlyList<JsonElement> all, Func<JsonElement, string> one) =>
        all.Count == 0 ? "none" : string.Join(", ", all.Select(one));

    private static string Health(JsonElement controller) => controller.Find("Status")?.Text("Health") ?? "health not told";
}
