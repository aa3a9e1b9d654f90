using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Telling;
using Nailcrow.Service.Reports;
using Nailcrow.Store;

namespace Nailcrow.Service.Returns.Outside.Mail;

/// <summary>Words and prints what goes out by mail, as it is when it goes.</summary>
internal sealed class LetterSender(MailDoor door, PaperPress press, IDbContextFactory<NailcrowDb> dbs, TimeProvider time)
{
    /// <returns>What the ticket is told of it, and what is tried again instead.</returns>
    public async Task<Heard<LetterWent>> SendAsync(Partner mail, TicketRecord record, Letter letter, CancellationToken ct)
    {
        if (LetterText.Of(record, letter.Asked, DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime)) is not { } text)
            return Not("what it was about is no longer so");
        var to = letter.About is null ? letter.To : await AddressAsync(letter.To, ct);
        if (to is null)
            return Not($"{letter.To} has no mail address; an administrator adds it ('nailcrow person mail')");
        Printed? paper = null;
        if (
            record.Find(letter.Asked)?.Body is PaperMailed mailed
            && !(await press.PrintAsync(record, mailed.Paper, mailed.About, ct)).Is(out paper, out var none)
        )
            return Not(none);
        return await door.SendAsync(mail, letter.Asked, to, text.Subject, text.Body, paper, ct) switch
        {
            Heard<string>.Answer => new Heard<LetterWent>.Answer(
                new(letter.Asked, letter.To, Sha256: paper is null ? null : Convert.ToHexStringLower(SHA256.HashData(paper.Pdf)))
            ),
            Heard<string>.No(var why) => Not(why),
            Heard<string>.Trouble(var says, var after) => new Heard<LetterWent>.Trouble(says, after),
            var other => throw new InvalidOperationException($"{other} is no answer that is known."),
        };

        Heard<LetterWent> Not(string why) => new Heard<LetterWent>.Answer(new(letter.Asked, letter.To, Refused: why));
    }

    private async Task<string?> AddressAsync(string person, CancellationToken ct)
    {
        await using var db = await dbs.CreateDbContextAsync(ct);
        return await db.Users.Where(p => p.UserName == person && p.DisabledAt == null).Select(p => p.Email).FirstOrDefaultAsync(ct);
    }
}
