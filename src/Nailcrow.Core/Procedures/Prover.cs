using Nailcrow.Core.Procedures.Proof;

namespace Nailcrow.Core.Procedures;

/// <summary>Decides the safety rules of a procedure for every path, machine and answer that it provides for.</summary>
public static class Prover
{
    public static ProofResult Prove(Procedure procedure) => Explorer.Of(procedure);
}
