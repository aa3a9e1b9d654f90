using Nailcrow.Core.Procedures;

namespace Nailcrow.Core.Swaps.Following;

/// <summary>What a sheet says after a step if all is as it should be, so that a hand can make ready.</summary>
internal static class WhatFollows
{
    public static string? Say(RunSheet sheet, Run run, RunStep step) =>
        PlainPath.After(sheet, run, step) is { Current: var next } && next != step.Id ? sheet.Step(next)?.Say : null;
}
