using Nailcrow.Procedures;

namespace Nailcrow.Core.Tests.Procedures;

/// <summary>What people come up with when they change a procedure: what is not safe is refused with its cause, and what only looks odd is not.</summary>
public class OddProcedureTests
{
    public static TheoryData<Oddity> Broken => [.. BrokenProcedures.All];
    public static TheoryData<Oddity> Sound => [.. SoundProcedures.All];

    [Theory, MemberData(nameof(Broken))]
    public void What_is_not_safe_is_refused_with_its_cause(Oddity odd)
    {
        var findings = Prover.Prove(Shipped.BrokenOne(odd.Procedure, odd.Was, odd.Now)).Findings;

        findings.ShouldContain(f => f.Sentence.Contains(odd.Sentence), $"{odd.Told}:\n{string.Join("\n", findings)}");
    }

    [Theory, MemberData(nameof(Sound))]
    public void What_only_looks_odd_is_accepted(Oddity odd) =>
        Prover.Prove(Shipped.BrokenOne(odd.Procedure, odd.Was, odd.Now)).Findings.Select(f => $"{f}").ShouldBeEmpty(odd.Told);

    [Fact]
    public void They_are_as_many_as_they_should_be_and_no_two_are_one()
    {
        BrokenProcedures.All.Count.ShouldBeGreaterThanOrEqualTo(60);
        SoundProcedures.All.Count.ShouldBeGreaterThanOrEqualTo(40);
        BrokenProcedures.All.Concat(SoundProcedures.All).Select(o => o.Told).ShouldBeUnique();
        BrokenProcedures.All.ShouldAllBe(o => o.Sentence.Length > 0);
    }
}
