using Microsoft.AspNetCore.Identity;
using Nailcrow.Client.People;
using Nailcrow.Core.People.Log;
using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.People.SecondFactor;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.SigningIn;

/// <summary>What became of a try to sign in.</summary>
internal abstract record SignInEnd
{
    private SignInEnd() { }

    public sealed record In(Person Person) : SignInEnd;

    /// <summary>The same for a wrong password, a name nobody has, and somebody who may not come in.</summary>
    public sealed record No : SignInEnd;

    /// <summary>Right so far, and there is a second factor.</summary>
    /// <param name="ByPasskey">It is a passkey alone, which a browser shows.</param>
    /// <param name="WasWrong">One was shown, and it was another one.</param>
    public sealed record SecondWanted(bool ByPasskey, bool WasWrong) : SignInEnd;

    public sealed record Wait(TimeSpan For) : SignInEnd;

    public sealed record Busy : SignInEnd;
}

/// <summary>Holds a name and a password against who there is, in the same time and the same words whether there is such a name or not.</summary>
internal sealed class SignIns(
    PeopleBook people,
    Sessions sessions,
    PasswordHashing hashing,
    SignInLimits limits,
    SecondFactorCheck second,
    SecurityLog log,
    TimeProvider time
)
{
    // Longer than any name or password there is; nothing that long is hashed or kept.
    private const int Longest = 512;

    private readonly OneAtATime _inTurn = new();

    public async Task<SignInEnd> TryAsync(SignInAsk ask, string address, CancellationToken ct)
    {
        var typed = ask.Name.Trim();
        if (typed.Length > Longest || ask.Password.Length > Longest || ask.Code?.Length > Longest)
            return new SignInEnd.No();
        var person = await people.ToSignInAsync(typed, ct);
        var name = person?.Name ?? typed.ToLowerInvariant();
        var known = await sessions.KnowsAsync(name, address, ct);
        // In turn: somebody whose ten scripts sign in at once is let in ten times, and whoever guesses a hundred at once has guessed a hundred.
        return await _inTurn.OfAsync($"{name}\n{address}", () => InTurnAsync(ask, person, typed, name, address, known, ct), ct);
    }

    private async Task<SignInEnd> InTurnAsync(
        SignInAsk ask,
        Person? person,
        string typed,
        string name,
        string address,
        bool known,
        CancellationToken ct
    )
    {
        if (limits.Begin(name, address, known, time.GetUtcNow()) is { Ticks: > 0 } wait)
            return new SignInEnd.Wait(wait);
        switch (await hashing.HoldAsync(person?.PasswordHash, ask.Password, ct))
        {
            case null:
                limits.TakeBack(name, address, known);
                return new SignInEnd.Busy();
            case PasswordVerificationResult.Failed:
            case not null when person?.DisabledAt is not null:
                await WrongAsync(typed, name, address, known, ct);
                return new SignInEnd.No();
            case not null when person?.HasRunOut(time.GetUtcNow()) == true:
                await WrongAsync(typed, name, address, known, ct, "the password they were given had run out");
                return new SignInEnd.No();
            case var right:
                var half = await second.OfAsync(new(name, address), ask.Code, ct);
                if (await WhyNotYetAsync(half, typed, name, address, known, ct) is { } notYet)
                    return notYet;
                limits.Right(name, address, known);
                if (right == PasswordVerificationResult.SuccessRehashNeeded)
                    await HashAnewAsync(person!, ask.Password, ct); // nobody is never right
                return new SignInEnd.In(person!);
        }
    }

    /// <summary>What is missing of the second half; who has guessed the first may not guess on for nothing.</summary>
    private async Task<SignInEnd?> WhyNotYetAsync(
        SecondHalf half,
        string typed,
        string name,
        string address,
        bool known,
        CancellationToken ct
    )
    {
        switch (half)
        {
            case SecondHalf.Passed:
                return null;
            case SecondHalf.Wrong:
                await WrongAsync(typed, name, address, known, ct, "the password was right, the second factor was not");
                return new SignInEnd.SecondWanted(ByPasskey: false, WasWrong: true);
            default:
                limits.TakeBack(name, address, known);
                return half == SecondHalf.Busy
                    ? new SignInEnd.Busy()
                    : new SignInEnd.SecondWanted(half == SecondHalf.PasskeyWanted, WasWrong: false);
        }
    }

    private async Task WrongAsync(string typed, string name, string address, bool known, CancellationToken ct, string? why = null)
    {
        var slowed = limits.Waits(name, address, known, time.GetUtcNow());
        var what = slowed ? SecurityEvent.SignInSlowed : SecurityEvent.SignInRefused;
        await log.WriteAsync(new(Visible.Text(Shortened.To(typed, SignInName.Most)), address), what, null, why, ct);
    }

    private async Task HashAnewAsync(Person person, string password, CancellationToken ct)
    {
        if (await hashing.HashAsync(password, ct) is { } hash)
            await people.HashedAnewAsync(person.Name, person.PasswordHash ?? "", hash, ct);
    }
}
