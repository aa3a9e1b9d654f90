namespace Nailcrow.Core.Reports.Papers;

/// <summary>A paper that goes with drives, in its words; how it is drawn is for whoever draws it.</summary>
/// <param name="AsOf">When the newest entry was recorded that it goes by: the same record gives the same paper.</param>
/// <param name="Facts">What it is about, each with its name.</param>
/// <param name="Says">What is stated, and signed for.</param>
/// <param name="Signs">Who signs, one line each.</param>
public sealed record Form(
    long Ticket,
    string Title,
    DateTimeOffset AsOf,
    IReadOnlyList<FormFact> Facts,
    IReadOnlyList<FormDrive> Drives,
    IReadOnlyList<string> Says,
    IReadOnlyList<string> Signs
);

/// <param name="At">A moment, which is read in the zone of the site; null where the text is all.</param>
/// <param name="IsCode">A machine reads it as well: it is drawn as bars too.</param>
public sealed record FormFact(string Name, string Text, DateTimeOffset? At = null, bool IsCode = false);

/// <summary>A drive on a paper.</summary>
/// <param name="What">Its model and size, as far as they are known.</param>
public sealed record FormDrive(string Serial, string What, IReadOnlyList<string> Says);
