namespace Nailcrow.StandIn.Machine;

/// <summary>What a stand-in holds when it is switched on. The seed changes the serials, so that several differ.</summary>
internal static class StandInFilling
{
    public const int BayCount = 12;

    // Nominally equal drives of two makers differ by some sectors; both are "8 TB" on their labels.
    private const long EightTerabytes = 8_001_563_222_016;

    // Characters people misread are in here on purpose.
    private const string Alphabet = "0123456789BDGIOQSZ";

    public static string ChassisSerial(int seed) => $"BRK12-{seed:0000}";

    public static Dictionary<int, StandInDrive> Bays(int seed) =>
        Enumerable.Range(1, BayCount - 1).ToDictionary(b => b, b => new StandInDrive(SerialOf(seed, b), "Pellworth P8-K", EightTerabytes));

    public static List<StandInArray> Arrays(int seed) =>
        [
            new("vault", "RAID6", 2, Enumerable.Range(1, 6).Select(b => SerialOf(seed, b))),
            new("desk", "RAID5", 1, Enumerable.Range(7, 4).Select(b => SerialOf(seed, b))),
        ];

    public static string SpareSerial(int seed) => SerialOf(seed, 11);

    /// <summary>What the engineer brought: the replacement, and one drive that is somebody else's.</summary>
    public static IEnumerable<StandInDrive> Brought(int seed) =>
        [new(SerialOf(seed, 91), "Cindral C8-R", EightTerabytes), new(SerialOf(seed, 92), "Cindral C8-R", EightTerabytes)];

    public static string SerialOf(int seed, int place)
    {
        var random = new Random(seed * 1000 + place);
        var maker = place > 90 ? "C8" : "P8";
        return maker + new string([.. Enumerable.Range(0, 8).Select(_ => Alphabet[random.Next(Alphabet.Length)])]);
    }
}
