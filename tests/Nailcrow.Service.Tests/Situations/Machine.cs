using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Arrays;

namespace Nailcrow.Service.Tests.Situations;

/// <summary>A machine as its own screen shows it: six drives that can bear two losses, one of them dropped.</summary>
internal sealed class Machine(int nth)
{
    public const string Array = "vault";
    private const long Bytes = 8_000_000_000_000;

    private readonly SortedDictionary<string, Bay> _bays = new(
        Enumerable.Range(1, 6).ToDictionary(b => $"{b}", b => Member($"{b}", $"OLD{nth:000}B{b}X")),
        StringComparer.Ordinal
    );

    /// <summary>What the array says of itself; null where it says what its members make of it.</summary>
    public ArrayState? Says { get; set; }

    public ArrayLevel Level { get; set; } = ArrayLevel.Raid6;

    public string Serial(string bay) => _bays[bay].Serial ?? "";

    public Bay this[string bay]
    {
        get => _bays[bay];
        set => _bays[bay] = OfItsOwn(value) with { Label = bay };
    }

    /// <summary>The serial of a drive that nobody recorded, and that no other story's machine has.</summary>
    public string Stranger(string bay) => $"STRANGER{nth:000}B{bay}X";

    // All stories share one service, and run in any order: a serial that two of them use is one drive in two machines. The end of one
    // that is in this machine is its own, as a screen that cuts it shows it.
    private Bay OfItsOwn(Bay bay) =>
        bay.Serial is not { } serial
        || serial.Contains($"{nth}", StringComparison.Ordinal)
        || _bays.Values.Any(b => b.Serial?.EndsWith(serial, StringComparison.Ordinal) == true)
            ? bay
            : throw new ArgumentException(
                $"{serial} may be in another story's machine as well; write Stranger(bay) for a drive of its own."
            );

    /// <summary>A seventh drive that is there to step in.</summary>
    public void HasASpare() => this["7"] = Member("7", $"OLD{nth:000}B7X") with { Role = BayRole.Spare, Array = null };

    /// <summary>It has stepped in: the array is whole without what dropped out.</summary>
    public void SpareTakesOver()
    {
        this["7"] = this["7"] with { Role = BayRole.Member, Array = Array };
        foreach (var bay in _bays.Values.Where(b => b.Role == BayRole.Dropped).ToList())
            this[bay.Label] = bay with { Array = null };
    }

    public void Drops(string bay) => this[bay] = this[bay] with { Role = BayRole.Dropped, Health = DriveHealth.Faulted };

    public void Loses(string bay) => this[bay] = Empty(bay);

    /// <summary>A drive that the story knows by its serial: its part, or what came out of another story's machine.</summary>
    public void Gets(string bay, string serial, BayRole role = BayRole.Filling) => _bays[bay] = Member(bay, serial) with { Role = role };

    /// <summary>The same place, and the same drive in it, by another name.</summary>
    public void NamesAnew(string bay, string name)
    {
        _bays[name] = _bays[bay] with { Label = name };
        _bays.Remove(bay);
    }

    /// <summary>Whatever was being filled is filled.</summary>
    public void Finishes()
    {
        foreach (var (label, bay) in _bays.ToList().Select(b => (b.Key, b.Value)))
            if (bay.Role == BayRole.Filling)
                this[label] = bay with { Role = BayRole.Member };
    }

    public Snapshot Seen() => new(DateTimeOffset.UtcNow, "person", [.. _bays.Values], [new(Array, Level, 6, State(), Bytes)]);

    private ArrayState State() =>
        Says
        ?? (
            _bays.Values.Any(b => b.Role == BayRole.Filling) ? ArrayState.Rebuilding
            : _bays.Values.Count(b => b.Role == BayRole.Member) >= 6 ? ArrayState.Whole
            : ArrayState.Degraded
        );

    private static Bay Member(string label, string serial) =>
        new(label, BayRole.Member, DriveHealth.Good, $"disk{label}", serial, Bytes: Bytes, Array: Array);

    private static Bay Empty(string label) => new(label, BayRole.Empty, DriveHealth.Unknown, $"disk{label}");
}
