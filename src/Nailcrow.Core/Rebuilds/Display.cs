namespace Nailcrow.Core.Rebuilds;

/// <summary>How finely the displays were read that a row of readings comes from. All in percent points.</summary>
internal sealed class Display
{
    private readonly Dictionary<string, int> _finest;

    public Display(IEnumerable<Reading> readings) =>
        _finest = readings
            .Where(r => r.Source != Reading.Person)
            .GroupBy(r => r.Source)
            .ToDictionary(g => g.Key, g => g.Max(r => ShownTo(r)));

    /// <summary>
    /// The smallest change that can be seen in a reading: "62.5" moves by 0.1. A machine is as fine as it has ever been, since its
    /// "62" between "61.9" and "62.1" is 62.0; of people each rounds in their own way.
    /// </summary>
    public decimal StepOf(Reading reading) => Tenth(_finest.GetValueOrDefault(reading.Source, ShownTo(reading)));

    /// <summary>
    /// Whether progress was lost between two readings. Nobody knows whether a person rounds up or down, so what two people read
    /// off one screen may lie a step of each apart; a machine's own readings are compared as they are.
    /// </summary>
    public bool FallsBack(Reading from, Reading to) =>
        from.Source == to.Source && from.Source != Reading.Person
            ? to.Percent < from.Percent
            : to.Percent + StepOf(to) < from.Percent - StepOf(from);

    private static int ShownTo(Reading reading) => (reading.Percent ?? 0).Scale;

    private static decimal Tenth(int places) => new(1, 0, 0, false, (byte)Math.Min(places, 28));
}
