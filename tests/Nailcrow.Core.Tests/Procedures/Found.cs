using Nailcrow.Core.Procedures.Checked;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>That the proof finds what is wrong with a procedure that ships once something in it is changed.</summary>
internal static class Found
{
    public static void In(string name, string was, string now, SafetyRule rule, string sentence, bool pathless = false)
    {
        var findings = Shipped.Broken(name, was, now).Findings;

        var found = findings.FirstOrDefault(f => f.Rule == rule && f.Sentence == sentence);
        found.ShouldNotBeNull(string.Join("\n", findings.Select(f => f.ToString())));
        found.Path.Any().ShouldBe(!pathless, found.ToString());
    }
}
