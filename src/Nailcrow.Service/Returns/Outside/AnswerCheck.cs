using System.Globalization;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Terms;

namespace Nailcrow.Service.Returns.Outside;

/// <summary>What of an answer cannot be meant. A partner's program has mistakes like any other, and nothing of them comes on record.</summary>
internal static class AnswerCheck
{
    private const int MostOfANumber = 60;
    private const int MostOfASentence = 2_000;

    public static string? Problem(BookingAnswer answer, DateTimeOffset now) =>
        Number(answer.Label, "label") ?? Day(answer.CollectsOn, "collectsOn", DateOnly.FromDateTime(now.UtcDateTime).AddDays(-1));

    public static string? Problem(ClaimAnswer answer, Claim asked) =>
        SerialNumber.Normalise(answer.Serial) != asked.Serial
            ? $"it is about {Visible.Text(answer.Serial)}, and {asked.Serial} was asked for."
        : answer is { Refused: not null, Authorisation: not null } ? "it refuses, and gives a number to send it back under."
        : answer is { Refused: null, Authorisation: null, Warranty: null }
            ? "it says nothing of a warranty, gives no number and refuses nothing."
        : asked.Question != MakerQuestion.Warranty && answer is { Refused: null, Authorisation: null }
            ? "a number to send it back under was asked for, and it has none."
        : answer.Authorisation is { } number && Number(number, "authorisation") is { } no ? no
        : Day(answer.DueBy, "dueBy", DateOnly.FromDateTime(asked.AskedAt.UtcDateTime).AddDays(-1))
            ?? Day(answer.Warranty?.Until, "warranty.until", Earliest)
            ?? Day(answer.Warranty?.From, "warranty.from", Earliest)
            ?? (
                answer.Warranty is { From: { } from } w && from > w.Until
                    ? $"its warranty ends on {Text(w.Until)}, before it begins on {Text(from)}."
                    : null
            )
            ?? Sentence(answer.Refused, "refused")
            ?? Sentence(answer.Says, "says")
            ?? Sentence(answer.LateCost, "lateCost")
            ?? Sentence(answer.Warranty?.Terms, "warranty.terms");

    public static string? Problem(ParcelEvent said) =>
        Number(said.Id, "id") ?? Number(said.Label, "label") ?? Sentence(said.Place, "place") ?? Sentence(said.Says, "says");

    private static readonly DateOnly Earliest = new(1990, 1, 1);
    private static readonly DateOnly Latest = new(2100, 1, 1);

    private static string? Number(string text, string field) =>
        string.IsNullOrWhiteSpace(text) ? $"{field} is empty."
        : text.Length > MostOfANumber ? $"{field} has {text.Length} characters; at most {MostOfANumber} are taken."
        : text.Any(char.IsControl) ? $"{field} has characters that cannot be printed."
        : null;

    private static string? Sentence(string? text, string field) =>
        text?.Length > MostOfASentence ? $"{field} has {text.Length} characters; at most {MostOfASentence} are taken." : null;

    private static string? Day(DateOnly? day, string field, DateOnly earliest) =>
        day is { } said && (said < earliest || said >= Latest) ? $"{field} is {Text(said)}, which is no day it can be." : null;

    private static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
