using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.People;
using Nailcrow.Store.Swaps;
using Nailcrow.Store.Tickets;

namespace Nailcrow.Store;

/// <summary>Everything that is kept. One derived context per database product.</summary>
public abstract class NailcrowDb(DbContextOptions options) : IdentityUserContext<Person>(options)
{
    internal DbSet<JournalRow> Journal => Set<JournalRow>();
    internal DbSet<TicketLineRow> TicketLines => Set<TicketLineRow>();
    internal DbSet<DrivePlaceRow> DrivePlaces => Set<DrivePlaceRow>();
    internal DbSet<ApplianceRow> Appliances => Set<ApplianceRow>();
    internal DbSet<SiteRow> Sites => Set<SiteRow>();
    internal DbSet<ModelRow> Models => Set<ModelRow>();
    internal DbSet<ReferenceChangeRow> ReferenceChanges => Set<ReferenceChangeRow>();

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.ApplyConfigurationsFromAssembly(typeof(NailcrowDb).Assembly);
    }
}
