using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Store.People;

namespace Nailcrow.Service.People.SigningIn;

/// <summary>
/// The password of whoever is in, said once more before what they come in with is changed. Whoever holds somebody's open session guesses
/// here as at the door; what they have wrong slows down nobody else.
/// </summary>
internal sealed class OwnPasswords(PeopleBook people, PasswordHashing hashing, SignInLimits limits, TimeProvider time)
{
    private const int Longest = 512;

    /// <returns>Null where it is right, else the refusal.</returns>
    public async Task<ProblemHttpResult?> WhyNotAsync(Doer doer, string typed, CancellationToken ct)
    {
        if (await people.FindAsync(doer.Name, ct) is not { } person)
            return Refusals.NotFound("Nobody is signed in with a name that is known here.");
        if (person.PasswordHash is null)
            return Refusals.Refused(
                "You have no password here, since you come in by way of a provider of sign-ins. Whoever looks after people can give you one."
            );
        if (limits.Begin(doer.Name, Of(doer), known: true, time.GetUtcNow()) is { Ticks: > 0 } wait)
            return TypedResults.Problem($"Too many wrong passwords were tried; try again in {Waits.Told(wait)}.", statusCode: 429);
        switch (await hashing.HoldAsync(person.PasswordHash, typed.Length > Longest ? "" : typed, ct))
        {
            case null:
                limits.TakeBack(doer.Name, Of(doer), known: true);
                return TypedResults.Problem("Very many are signing in at this moment; try again.", statusCode: 503);
            case PasswordVerificationResult.Failed:
                return Refusals.Unusable("The password you have now is another one; nothing was changed.");
        }
        limits.Right(doer.Name, Of(doer), known: true);
        return null;
    }

    private static string Of(Doer doer) => $"own password of {doer.Name}";
}

internal static class Waits
{
    public static string Told(TimeSpan wait) =>
        (int)Math.Ceiling(wait.TotalSeconds) switch
        {
            1 => "1 second",
            < 120 and var seconds => $"{seconds.ToString(CultureInfo.InvariantCulture)} seconds",
            var seconds => $"{((seconds + 59) / 60).ToString(CultureInfo.InvariantCulture)} minutes",
        };
}
