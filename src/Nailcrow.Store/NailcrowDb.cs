using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Intake;
using Nailcrow.Store.People;
using Nailcrow.Store.People.SigningIn;
using Nailcrow.Store.Procedures;
using Nailcrow.Store.Products;
using Nailcrow.Store.Returns;
using Nailcrow.Store.Returns.Ledger;
using Nailcrow.Store.Returns.Outside;
using Nailcrow.Store.Returns.Supplies;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store;

/// <summary>Everything that is kept. One derived context per database product.</summary>
public abstract class NailcrowDb(DbContextOptions options) : IdentityUserContext<Person>(options)
{
    internal abstract DatabaseProduct Product { get; }

    /// <summary>The server's time when the turn that is open began; null on the file, where there is one clock.</summary>
    internal DateTimeOffset? TurnBegan { get; set; }

    internal DbSet<JournalRow> Journal => Set<JournalRow>();
    internal DbSet<LedgerRow> Ledger => Set<LedgerRow>();
    internal DbSet<PartRow> Parts => Set<PartRow>();
    internal DbSet<SupplyRow> Supplies => Set<SupplyRow>();
    internal DbSet<SealRow> Seals => Set<SealRow>();
    internal DbSet<TicketLineRow> TicketLines => Set<TicketLineRow>();
    internal DbSet<DrivePlaceRow> DrivePlaces => Set<DrivePlaceRow>();
    internal DbSet<ApplianceRow> Appliances => Set<ApplianceRow>();
    internal DbSet<CustomerRow> Customers => Set<CustomerRow>();
    internal DbSet<SiteRow> Sites => Set<SiteRow>();
    internal DbSet<ModelRow> Models => Set<ModelRow>();
    internal DbSet<DriveRow> Drives => Set<DriveRow>();
    internal DbSet<DriveModelRow> DriveModels => Set<DriveModelRow>();
    internal DbSet<WarrantyRow> Warranties => Set<WarrantyRow>();
    internal DbSet<QualifiedRow> QualifiedModels => Set<QualifiedRow>();
    internal DbSet<SnapshotRow> Snapshots => Set<SnapshotRow>();
    internal DbSet<LifeEventRow> LifeEvents => Set<LifeEventRow>();
    internal DbSet<IntakeRow> Intake => Set<IntakeRow>();
    internal DbSet<IntakeRuleRow> IntakeRules => Set<IntakeRuleRow>();
    internal DbSet<EventSenderRow> EventSenders => Set<EventSenderRow>();
    internal DbSet<ProcedureVersionRow> ProcedureVersions => Set<ProcedureVersionRow>();
    internal DbSet<StepTimeRow> StepTimes => Set<StepTimeRow>();
    internal DbSet<OutboxRow> Outbox => Set<OutboxRow>();
    internal DbSet<PartnerRow> Partners => Set<PartnerRow>();
    internal DbSet<MachineAccessRow> MachineAccesses => Set<MachineAccessRow>();
    internal DbSet<PhotoRow> Photos => Set<PhotoRow>();
    internal DbSet<PicturePeriodRow> PicturePeriods => Set<PicturePeriodRow>();
    internal DbSet<SessionRow> Sessions => Set<SessionRow>();
    internal DbSet<SignInLetterRow> SignInLetters => Set<SignInLetterRow>();
    internal DbSet<SecondFactorRow> SecondFactors => Set<SecondFactorRow>();
    internal DbSet<ScriptKeyRow> ScriptKeys => Set<ScriptKeyRow>();
    internal DbSet<SecurityRow> SecurityLines => Set<SecurityRow>();
    internal DbSet<ReferenceChangeRow> ReferenceChanges => Set<ReferenceChangeRow>();

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.ApplyConfigurationsFromAssembly(typeof(NailcrowDb).Assembly);
    }
}
