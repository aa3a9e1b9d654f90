using System.Globalization;
using Nailcrow.Fuzz;

// Nailcrow.Fuzz instrument FOLDER: counts of which branches ran are built into our own assemblies there.
// Nailcrow.Fuzz run INPUTS [TARGET ...]: so many inputs to each, grown from what reached something new.
if (args is ["instrument", var folder])
    return Instrumented.In(folder);
if (
    args is not ["run", var number, .. var names]
    || !long.TryParse(number, NumberStyles.Integer, CultureInfo.InvariantCulture, out var inputs)
)
{
    Console.Error.WriteLine("Say 'instrument FOLDER', or 'run INPUTS [TARGET ...]'.");
    return 2;
}
var wanted = Targets.All.Where(t => names.Length == 0 || names.Contains(t.Name)).ToList();
if (wanted.Count == 0 || wanted.Count < names.Length)
{
    Console.Error.WriteLine($"No such target; there are {string.Join(", ", Targets.All.Select(t => t.Name))}.");
    return 2;
}
var found = 0;
foreach (var target in wanted)
    found += new Hunt(target, seed: 1).Run(inputs);
Console.WriteLine(found == 0 ? "Nothing was found." : $"{found} found; what did it lies in .build/fuzz/found.");
return found == 0 ? 0 : 1;
