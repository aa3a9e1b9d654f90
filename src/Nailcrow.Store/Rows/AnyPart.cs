namespace Nailcrow.Store.Rows;

/// <summary>A part of a word as LIKE takes it: in any case, and what a person types has no wildcards.</summary>
internal static class AnyPart
{
    public const string Escape = "\\";

    public static string Of(string text) =>
        $"%{text.Trim().Replace(Escape, Escape + Escape).Replace("%", Escape + "%").Replace("_", Escape + "_")}%";
}
