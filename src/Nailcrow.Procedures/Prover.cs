using Nailcrow.Core.Procedures.Checked;
using Nailcrow.Procedures.Proof;

namespace Nailcrow.Procedures;

/// <summary>Decides the safety rules of a procedure for every path, machine and answer that it provides for.</summary>
public static class Prover
{
    /// <summary>
    /// Counts the rules: one more with each that is stricter than before. What was proved under earlier ones is proved anew before it is
    /// used.
    /// </summary>
    public const int RulesNow = 3;

    /// <summary>
    /// One main walk, and a short one for each thing that can be set aside. Where something is found that may depend on what
    /// was set aside, that is taken back into the main walk and all is decided anew: so what is told is never a false alarm.
    /// (Refined by counterexamples: Clarke, Grumberg, Jha, Lu, Veith, CAV 2000.)
    /// </summary>
    public static ProofResult Prove(Procedure procedure)
    {
        var whole = new Graph(procedure, View.OfAll(procedure));
        var asides = new Asides(whole);
        while (true)
        {
            var walks = asides.Walks().Select(view => (View: view, Walk: Explorer.Walked(procedure, view))).ToList();
            var doubtful = walks.Where(w => w.Walk.Findings.Any()).Select(w => w.View.Decided.First()).ToList();
            doubtful.ForEach(asides.TakeBack);
            if (doubtful.Count > 0)
                continue;
            var main = Explorer.Walked(procedure, asides.Main);
            doubtful = [.. main.Troubled.Where(asides.Contains).Distinct()];
            doubtful.ForEach(asides.TakeBack);
            if (doubtful.Count > 0)
                continue;
            var others = walks.Select(w => w.Walk).ToList();
            return new(
                main.States + others.Sum(w => w.States),
                [.. main.Findings, .. new WholeWalk(procedure, whole, main, others).Findings()]
            );
        }
    }
}
