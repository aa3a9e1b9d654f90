using Nailcrow.Core.Returns;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.OverTime;
using Nailcrow.Service.Host.Wire;
using Nailcrow.Service.Returns.Outside;
using Nailcrow.Service.Returns.Outside.Mail;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;
using Nailcrow.Store.Returns.Outside;

namespace Nailcrow.Service.People.News;

/// <summary>Tells people by mail what was changed of how they come in, whoever did it: if it was not them, they know at once.</summary>
internal sealed class SignInNewsRound(
    SignInLetters letters,
    ScriptKeys keys,
    Partners partners,
    ILeases leases,
    MailDoor door,
    OurAddress address,
    TimeProvider time,
    IHostApplicationLifetime life,
    ILogger<SignInNewsRound> log
) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5);

    // Longer than a mail server is waited for; whoever died with one in hand leaves it to the others after that.
    private static readonly TimeSpan Claimed = TimeSpan.FromMinutes(5);

    // News of yesterday warns nobody; it stands on their page.
    private static readonly TimeSpan TriedFor = TimeSpan.FromDays(1);

    private static readonly TimeSpan LongestWait = TimeSpan.FromHours(1);

    // A day's notice more or less is nobody's concern, and who asks each time asks for nothing.
    private static readonly TimeSpan RemindsEvery = TimeSpan.FromHours(1);

    private DateTimeOffset _reminds = DateTimeOffset.MinValue;

    protected override async Task ExecuteAsync(CancellationToken stopping)
    {
        await life.CalmAsync(stopping);
        while (!stopping.IsCancellationRequested)
            try
            {
                await RemindAsync(stopping);
                while (
                    leases.Of(SharedWork.TellingPeople) is not null
                    && await letters.ClaimAsync(time.GetUtcNow(), time.GetUtcNow() + Claimed, stopping) is { } letter
                )
                    await SendAsync(letter, stopping);
                await Task.Delay(Every, stopping);
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e)
            {
                log.LogWarning(e, "News of how people come in was not sent; it is tried again in {Every}", Every);
                await Task.Delay(Every, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
    }

    /// <summary>Whose keys end soon.</summary>
    private async Task RemindAsync(CancellationToken ct)
    {
        if (time.GetUtcNow() < _reminds || leases.Of(SharedWork.TellingPeople) is null)
            return;
        _reminds = time.GetUtcNow() + RemindsEvery; // first: where it fails, letters go all the same
        await keys.RemindAsync(ct);
    }

    private async Task SendAsync(SignInLetter letter, CancellationToken ct)
    {
        var mail = await partners.OfMailAsync(letter.Tries, ct);
        var tooOld = time.GetUtcNow() - letter.At >= TriedFor; // whatever it was that kept it
        var heard =
            tooOld ? new Heard<string>.No("it could not be sent for a day")
            : mail is null ? new Heard<string>.No("no mail server is known any more")
            : await door.SendAsync(mail, letter.Id, letter.To, $"Nailcrow: {letter.Says}", Body(letter), null, ct);
        switch (heard)
        {
            case Heard<string>.Trouble(var says, _):
                log.LogInformation("News of how somebody comes in waits: {Says}", says);
                await letters.LaterAsync(letter.Id, time.GetUtcNow() + Wait(letter.Tries), ct);
                break;
            case Heard<string>.No(var why):
                log.LogWarning("News of how somebody comes in goes nowhere: {Why}", why);
                await letters.EndAsync(letter.Id, ct);
                break;
            default:
                await letters.EndAsync(letter.Id, ct);
                break;
        }
    }

    private static TimeSpan Wait(int tries)
    {
        var wait = TimeSpan.FromSeconds(10 * Math.Pow(2, Math.Min(tries, 12)));
        return wait < LongestWait ? wait : LongestWait;
    }

    private string Body(SignInLetter letter) =>
        $"""
            {letter.Says}

            At {letter.At.UtcDateTime:yyyy-MM-dd HH:mm} UTC{(letter.Address is { } from ? $", from {from}" : "")}.

            If anything was changed that you know nothing of, tell an administrator at once.
            Where you are signed in, and what was changed: {address.Of("you").AbsoluteUri}
            """.ReplaceLineEndings("\r\n");
}
