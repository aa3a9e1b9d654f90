namespace Nailcrow.Procedures.Proof;

/// <summary>
/// One state of a walk: where it stands, what is so, what is known of the variables that still matter, and what a call goes back
/// to.
/// </summary>
/// <param name="Values">A character for each variable: 0 where it is open, else the place of its value, from 1.</param>
internal readonly record struct Spot(int Node, Situation Now, string Values, int LeftFor);
