using Nailcrow.Bench;

// Each measurement prints its numbers beside those of its floor from the same run, and the ratio asked of it.
var all = new (string Name, Func<Task> Measure)[]
{
    ("start", StartAndMemory.MeasureAsync),
    ("append", Appending.MeasureAsync),
    ("append-postgres", Appending.MeasureOnPostgresAsync),
    ("nodes", Nodes.MeasureAsync),
    ("record", KeptRecord.MeasureAsync),
    ("move", Moving.MeasureAsync),
    ("fire", Fire.MeasureAsync),
    ("long", LongTicket.MeasureAsync),
    ("killed", Killed.MeasureAsync),
    ("pages", Pages.MeasureAsync),
    ("lists", Pages.MeasureListsAsync),
    ("console", ConsoleWeight.MeasureAsync),
    ("command", CommandTimes.MeasureAsync),
    ("verdicts", Verdicts.MeasureAsync),
    ("storm", Storm.MeasureAsync),
    ("import", Importing.MeasureAsync),
    ("procedures", Procedures.MeasureAsync),
    ("phone", Phone.MeasureAsync),
    ("ledger", PartsLedger.MeasureAsync),
    ("guarded", Guarded.MeasureAsync),
    ("hostile", Hostile.MeasureAsync),
};
var wanted = all.Where(m => args.Length == 0 || args.Contains(m.Name)).ToList();
if (wanted.Count == 0)
{
    Console.Error.WriteLine($"No such measurement; there are {string.Join(", ", all.Select(m => m.Name))}.");
    return 2;
}
foreach (var (name, measure) in wanted)
{
    Console.WriteLine($"\n== {name}");
    await measure();
}
return 0;
