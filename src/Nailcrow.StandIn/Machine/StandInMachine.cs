namespace Nailcrow.StandIn.Machine;

/// <summary>
/// A simulated 12-bay appliance: what its bays hold, what its arrays make of it, and what hands do to it. Bays are
/// labelled down columns, the software's names run in the order the cables were plugged.
/// </summary>
internal sealed class StandInMachine(StandInSettings settings, TimeProvider time)
{
    /// <summary>Software name of the bay at each label, from bay 1 on. Not in order, as on a real machine.</summary>
    public static readonly IReadOnlyList<string> Names =
    [
        "dk4",
        "dk0",
        "dk8",
        "dk5",
        "dk1",
        "dk9",
        "dk6",
        "dk2",
        "dk10",
        "dk7",
        "dk3",
        "dk11",
    ];

    private const int ExpansionSeed = 500;

    private readonly Lock _lock = new();
    private readonly Dictionary<int, StandInDrive> _bays = StandInFilling.Bays(settings.Seed);
    private readonly List<StandInArray> _arrays = StandInFilling.Arrays(settings.Seed);
    private readonly List<StandInDrive> _table = [.. StandInFilling.Brought(settings.Seed)];
    private readonly List<string> _log = [];
    private readonly HashSet<int> _refusing = [];
    private readonly List<(int Bay, decimal Percent)> _armed = [];
    private MachineView? _frozen;

    public Manner Manner { get; private set; } = Manner.Well;

    public bool LocatorOn { get; private set; }

    /// <summary>The second enclosure, whose chassis has a serial of its own; nobody's hands reach it.</summary>
    public StandInMachine? Expansion { get; } =
        settings.Expansion ? new(settings with { Seed = settings.Seed + ExpansionSeed, Expansion = false }, time) : null;

    public string Serial { get; } = StandInFilling.ChassisSerial(settings.Seed);

    public MachineView View()
    {
        lock (_lock)
        {
            Settle();
            return Manner == Manner.Frozen && _frozen is { } frozen ? frozen : Now();
        }
    }

    public void Behave(Manner manner)
    {
        lock (_lock)
        {
            Settle();
            _frozen = manner == Manner.Frozen ? Now() : null;
            Manner = manner;
        }
    }

    public void SwitchLight(bool on) => LocatorOn = on;

    /// <summary>The drive in a bay fails, and its array throws it out.</summary>
    public string Fail(int bay) =>
        Act(() =>
        {
            var drive = In(bay);
            _bays[bay] = drive with { Condition = DriveCondition.Failed };
            ThrowOut(drive.Serial);
            return $"The drive in bay {bay} ({drive.Serial}) has failed.";
        });

    /// <summary>The drive in a bay fails, and its array goes on listing it as a member: by its own word it is whole.</summary>
    public string FailListed(int bay) =>
        Act(() =>
        {
            _bays[bay] = In(bay) with { Condition = DriveCondition.Failed };
            return $"The drive in bay {bay} ({_bays[bay].Serial}) has failed and is listed as before.";
        });

    /// <summary>The drive in a bay will fail once a rebuild has come so far: the second failure that everybody fears.</summary>
    public string FailAt(int bay, decimal percent) =>
        Act(() =>
        {
            if (percent is < 0 or > 100)
                throw new StandInRefusal($"{percent} % is no place in a rebuild; accepted: 0 to 100.");
            var serial = In(bay).Serial;
            _armed.Add((bay, percent));
            return $"The drive in bay {bay} ({serial}) fails when a rebuild is at {percent} %.";
        });

    /// <summary>The spare steps in for the first member that is missing, at once: its array is whole without what dropped out.</summary>
    public string TakeOver(string array) =>
        Act(() =>
        {
            var into = Array(array);
            var spare = StandInFilling.SpareSerial(settings.Seed);
            if (_arrays.Exists(a => a.Members.Contains(spare)) || !_bays.Values.Any(d => d.Serial == spare))
                throw new StandInRefusal($"The spare ({spare}) is in use already, or pulled.");
            if (into.Members.IndexOf(null) is not (>= 0 and var place))
                throw new StandInRefusal($"{array} has all its members; the spare has nothing to step in for.");
            (into.Rebuild, into.Members[place]) = (null, spare);
            return $"The spare ({spare}) has stepped in; {array} is whole.";
        });

    /// <summary>The machine restarts: a rebuild that runs begins anew.</summary>
    public string Restart() =>
        Act(() =>
        {
            foreach (var array in _arrays.Where(a => a.Rebuild is not null))
                array.Rebuild = array.Rebuild! with { Began = time.GetUtcNow() }; // those that rebuild were chosen
            (LocatorOn, _frozen) = (false, null);
            return "It has restarted.";
        });

    /// <summary>A bay takes no drive from now on, or takes them again: what is in it is not seen.</summary>
    public string Refuse(int bay) =>
        Act(() =>
            _refusing.Remove(Bay(bay)) ? $"Bay {bay} takes drives again."
            : _refusing.Add(bay) ? $"Bay {bay} takes no drive."
            : ""
        );

    /// <summary>The drive in a bay works and warns that it will fail.</summary>
    public string Warn(int bay) =>
        Act(() =>
        {
            _bays[bay] = In(bay) with { Condition = DriveCondition.Warns };
            return $"The drive in bay {bay} ({_bays[bay].Serial}) warns.";
        });

    public string Pull(int bay) =>
        Act(() =>
        {
            var drive = In(bay);
            _bays.Remove(bay);
            _table.Add(drive);
            ThrowOut(drive.Serial);
            return $"Bay {bay} is empty; {drive.Serial} is in your hand.";
        });

    public string Insert(int bay, string serial) =>
        Act(() =>
        {
            if (_bays.TryGetValue(bay, out var there))
                throw new StandInRefusal($"Bay {bay} holds {there.Serial}; pull it first.");
            var drive =
                _table.Find(d => d.Serial.Equals(serial, StringComparison.OrdinalIgnoreCase))
                ?? throw new StandInRefusal($"No drive {serial} is at hand; at hand: {string.Join(", ", _table.Select(d => d.Serial))}.");
            _table.Remove(drive);
            _bays[Bay(bay)] = drive;
            TakeBack(drive);
            return $"{drive.Serial} is in bay {bay}.";
        });

    /// <summary>The rebuild is started by hand, naming array and bay, as on the machine's own screen.</summary>
    public string Start(string array, int bay) =>
        Act(() =>
        {
            var into = Array(array);
            var drive = In(bay);
            var place = into.Members.IndexOf(null);
            if (place < 0)
                throw new StandInRefusal($"{array} has all its members; nothing to rebuild.");
            if (into.Rebuild is not null)
                throw new StandInRefusal($"{array} is rebuilding already.");
            if (drive.Condition == DriveCondition.Failed || _arrays.Exists(a => a.Members.Contains(drive.Serial)))
                throw new StandInRefusal($"{drive.Serial} in bay {bay} has failed or is in use; a rebuild needs a free good drive.");
            into.Rebuild = new(drive.Serial, place, time.GetUtcNow(), settings.RebuildTakes);
            return $"{array} rebuilds onto bay {bay} ({drive.Serial}).";
        });

    /// <summary>The rebuild of an array comes to its end now, however long it had still to go.</summary>
    public string Finish(string array) =>
        Act(() =>
        {
            var under =
                _arrays.Find(a => a.Name == array && a.Rebuild is not null)
                ?? throw new StandInRefusal($"No array '{array}' is rebuilding.");
            under.Rebuild = under.Rebuild! with { Takes = TimeSpan.Zero };
            Settle();
            return $"The rebuild of {array} was brought to its end.";
        });

    public string AddToTable(StandInDrive drive) =>
        Act(() =>
        {
            _table.Add(drive);
            return $"{drive.Serial} is at hand.";
        });

    private StandInArray Array(string name) =>
        _arrays.Find(a => a.Name == name)
        ?? throw new StandInRefusal($"No array '{name}'; there are {string.Join(", ", _arrays.Select(a => a.Name))}.");

    private string Act(Func<string> act)
    {
        lock (_lock)
        {
            Settle();
            var said = act();
            _log.Insert(0, $"{time.GetUtcNow():HH:mm:ss} {said}");
            return said;
        }
    }

    private MachineView Now() =>
        new(
            [.. Enumerable.Range(1, StandInFilling.BayCount).Select(b => new BayView(b, Names[b - 1], Seen(b)))],
            [
                .. _arrays.Select(a => new ArrayView(
                    a.Name,
                    a.RaidType,
                    a.Bears,
                    [.. a.Members],
                    [.. a.ThrownOut],
                    a.Missing,
                    a.IsFailed,
                    a.Rebuild?.Serial,
                    a.Rebuild?.PercentAt(time.GetUtcNow())
                )),
            ],
            [.. _table],
            StandInFilling.SpareSerial(settings.Seed),
            [.. _log.Take(12)]
        );

    /// <summary>What the machine sees there: a bay that takes no drive looks empty to it.</summary>
    private StandInDrive? Seen(int bay) => _refusing.Contains(bay) ? null : _bays.GetValueOrDefault(bay);

    /// <summary>Rebuilds that have run their time are over; a drive that was to fail at a place of one has failed by then.</summary>
    private void Settle()
    {
        foreach (var armed in _armed.Where(a => _arrays.Exists(r => r.Rebuild?.PercentAt(time.GetUtcNow()) >= a.Percent)).ToList())
        {
            _armed.Remove(armed);
            if (_bays.GetValueOrDefault(armed.Bay) is not { } drive)
                continue;
            _bays[armed.Bay] = drive with { Condition = DriveCondition.Failed };
            ThrowOut(drive.Serial);
            _log.Insert(0, $"{time.GetUtcNow():HH:mm:ss} The drive in bay {armed.Bay} ({drive.Serial}) has failed.");
        }
        foreach (var array in _arrays)
            if (array.Rebuild is { } rebuild && time.GetUtcNow() - rebuild.Began >= rebuild.Takes)
            {
                array.Members[rebuild.Place] = rebuild.Serial;
                array.Rebuild = null;
                _log.Insert(0, $"{time.GetUtcNow():HH:mm:ss} {array.Name} is whole again.");
            }
    }

    private void ThrowOut(string serial)
    {
        foreach (var array in _arrays)
        {
            if (array.Rebuild?.Serial == serial)
                array.Rebuild = null;
            if (array.Members.IndexOf(serial) is >= 0 and var place)
            {
                array.Members[place] = null;
                array.ThrownOut.Add(serial);
            }
        }
    }

    /// <summary>A good drive that comes straight back is taken in again; a failed one stays out.</summary>
    private void TakeBack(StandInDrive drive)
    {
        if (drive.Condition == DriveCondition.Failed)
            return;
        foreach (var array in _arrays.Where(a => a.ThrownOut.Remove(drive.Serial)))
            array.Members[array.Members.IndexOf(null)] = drive.Serial;
    }

    private StandInDrive In(int bay) => _bays.GetValueOrDefault(Bay(bay)) ?? throw new StandInRefusal($"Bay {bay} is empty.");

    private static int Bay(int bay) =>
        bay is >= 1 and <= StandInFilling.BayCount
            ? bay
            : throw new StandInRefusal($"There is no bay {bay}; bays are 1 to {StandInFilling.BayCount}.");
}

/// <summary>Something hands cannot do to this machine now.</summary>
internal sealed class StandInRefusal(string message) : Exception(message);

internal sealed record BayView(int Label, string Name, StandInDrive? Drive);

internal sealed record ArrayView(
    string Name,
    string RaidType,
    int Bears,
    IReadOnlyList<string?> Members,
    IReadOnlyList<string> ThrownOut,
    int Missing,
    bool Failed,
    string? FillingSerial,
    decimal? Percent
);

/// <summary>Everything about the machine at one moment.</summary>
internal sealed record MachineView(
    IReadOnlyList<BayView> Bays,
    IReadOnlyList<ArrayView> Arrays,
    IReadOnlyList<StandInDrive> Table,
    string SpareSerial,
    IReadOnlyList<string> Log
);
