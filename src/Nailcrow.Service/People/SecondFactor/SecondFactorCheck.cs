using Nailcrow.Core.People.SecondFactor;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;

namespace Nailcrow.Service.People.SecondFactor;

/// <summary>What became of the second half of a sign-in.</summary>
internal enum SecondHalf
{
    /// <summary>They have none, or showed it.</summary>
    Passed,

    /// <summary>They have one-time codes, and showed none.</summary>
    CodeWanted,

    /// <summary>They have passkeys alone, which a browser shows.</summary>
    PasskeyWanted,
    Wrong,
    Busy,
}

/// <summary>Holds what somebody types beside a right password against what they have set up.</summary>
internal sealed class SecondFactorCheck(SecondFactors factors, RecoveryCodes recovery)
{
    public async Task<SecondHalf> OfAsync(Doer who, string? typed, CancellationToken ct)
    {
        var have = await factors.OfAsync(who.Name, ct);
        if (!have.Any)
            return SecondHalf.Passed;
        if (string.IsNullOrWhiteSpace(typed))
            return have.CodesSince is null ? SecondHalf.PasskeyWanted : SecondHalf.CodeWanted;
        if (RecoveryCode.Read(typed) is { } code)
            return await recovery.ShowAsync(who, code, ct) switch
            {
                true => SecondHalf.Passed,
                false => SecondHalf.Wrong,
                null => SecondHalf.Busy,
            };
        return await factors.ShowCodeAsync(who.Name, typed, ct) ? SecondHalf.Passed : SecondHalf.Wrong;
    }
}
