using Microsoft.EntityFrameworkCore;
using Nailcrow.Core.Reports.Papers;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Carrying;
using Nailcrow.Core.Returns.Claiming;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Returns.Letters;
using Nailcrow.Core.Returns.Supplies;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Terms;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Correcting;

namespace Nailcrow.Store.Tickets.Journal;

/// <summary>What an entry says, held against what no ticket alone knows: the ledger of parts, what is counted, and whom the service can ask.</summary>
internal sealed class AgainstTheBooks(JournalConnection connection)
{
    /// <returns>Why it is not written, and what would be; null where nothing speaks against it.</returns>
    public async Task<string?> WhyNotAsync(long ticket, Change change) =>
        NewPart(change) is { } part ? await WhyNotSetAsideAsync(part, ticket)
        : change.Newly<SuppliesUsed>() is { } used ? await WhyNotUsedAsync(used)
        : await AskedOfNobodyAsync(change.Newly<EntryBody>());

    /// <summary>A name that nobody has used is asked about where it may be a slip: counted under two names, neither count is right.</summary>
    private async Task<string?> WhyNotUsedAsync(SuppliesUsed used) =>
        SupplyName.Parse(used.Supply) is Parsed<SupplyName>.Ok(var name)
        && await connection.Supplies.MeantAsync(name, used.AsNamed is true) is { } meant
            ? meant.Near is null
                ? meant.Says
                : $"{meant.Says} A new one is said to be new: in the form, or with --as-named."
            : null;

    /// <summary>It is somebody else's or nowhere to be had; or nobody knows it, and a part that its code may mean is known.</summary>
    private async Task<string?> WhyNotSetAsideAsync(PartReserved part, long ticket)
    {
        var (serial, overruled) = (part.Serial, !string.IsNullOrWhiteSpace(part.OverruledBecause));
        var line = await connection.Pen.LineAsync(serial);
        if (line.Last is null)
            foreach (var meant in SerialNumber.Meanings(serial).Skip(1))
                if ((await connection.Pen.LineAsync(meant)).Last is not null)
                    return $"Stores knows no {line.Serial}, but {meant}: the label's code has an identifier before the serial. Say {meant}.";
        return Reservable.WhyNot(line, ticket, overruled);
    }

    /// <summary>Whom the service cannot ask is not asked: who it could be is said at once, and not by an errand that waits for ever.</summary>
    private async Task<string?> AskedOfNobodyAsync(EntryBody? said)
    {
        (string? Name, PartnerKind Kind)? asked = said switch
        {
            CarrierAsked carrier => (carrier.Carrier, PartnerKind.Carrier),
            MakerAsked maker => (maker.Maker, PartnerKind.Maker),
            PaperMailed or ReturnReminded => (null, PartnerKind.Mail), // whichever carries mail
            _ => null,
        };
        if (asked is not var (name, kind))
            return null;
        var known = await connection
            .Db.Partners.AsNoTracking()
            .Where(p => p.Kind == kind)
            .Select(p => p.Name)
            .OrderBy(n => n)
            .ToListAsync();
        return known.Exists(n => name is null || n == name) ? null
            : kind == PartnerKind.Mail ? "No mail server is known to the service yet; an administrator adds one ('nailcrow partner set')."
            : known.Count == 0 ? $"No {Words.Of(kind)} can be asked by the service yet; an administrator adds one ('nailcrow partner set')."
            : $"'{name}' is no {Words.Of(kind)} that the service can ask; known: {string.Join(", ", known)}.";
    }

    /// <summary>The part that is to be set aside by it; one that was set aside already, and only has its size put right, is none.</summary>
    private static PartReserved? NewPart(Change change) =>
        change.Newly<PartReserved>() is { } part
        && (change.Was is not PartReserved was || SerialNumber.Normalise(was.Serial) != SerialNumber.Normalise(part.Serial))
            ? part
            : null;
}
