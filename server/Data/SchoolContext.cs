using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Data;

/// <summary>One school's database. The stored classes are core's own.</summary>
public sealed class SchoolContext(DbContextOptions<SchoolContext> options)
    : IdentityUserContext<Account, Guid>(options),
        IDataProtectionKeyContext
{
    public DbSet<Core.School> Schools => Set<Core.School>();
    public DbSet<SashLevel> Sashes => Set<SashLevel>();
    public DbSet<Hall> Halls => Set<Hall>();
    public DbSet<StaffMember> Staff => Set<StaffMember>();
    public DbSet<SchoolClass> Classes => Set<SchoolClass>();
    public DbSet<Cohort> Cohorts => Set<Cohort>();
    public DbSet<Student> Students => Set<Student>();
    public DbSet<Adaptation> Adaptations => Set<Adaptation>();
    public DbSet<AccessEntry> AccessLog => Set<AccessEntry>();
    public DbSet<KeptImport> Imports => Set<KeptImport>();
    public DbSet<ImportWord> ImportWords => Set<ImportWord>();
    public DbSet<Posture> Postures => Set<Posture>();
    public DbSet<Link> Links => Set<Link>();
    public DbSet<Principle> Principles => Set<Principle>();
    public DbSet<Form> Forms => Set<Form>();
    public DbSet<Term> Terms => Set<Term>();
    public DbSet<Assignment> Assignments => Set<Assignment>();
    public DbSet<PlannedTerm> Plans => Set<PlannedTerm>();
    public DbSet<KeptArrangement> Arrangements => Set<KeptArrangement>();
    public DbSet<CalendarLink> CalendarLinks => Set<CalendarLink>();
    public DbSet<TaughtFact> TaughtFacts => Set<TaughtFact>();
    public DbSet<Attendance> Attendance => Set<Attendance>();
    public DbSet<Observation> Observations => Set<Observation>();
    public DbSet<Withdrawal> Withdrawals => Set<Withdrawal>();
    public DbSet<WayTried> WaysTried => Set<WayTried>();
    public DbSet<HomeSheetGiven> HomeSheets => Set<HomeSheetGiven>();
    public DbSet<PracticeLog> PracticeLogs => Set<PracticeLog>();
    public DbSet<TakenOverFact> TakenOverFacts => Set<TakenOverFact>();
    public DbSet<SignIn> SignIns => Set<SignIn>();
    public DbSet<Letter> Letters => Set<Letter>();
    public DbSet<JournalEntry> Journal => Set<JournalEntry>();
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    /// <summary>A lesson has been held, or has begun: somebody has said who was there or what was taught.</summary>
    public async Task<bool> WasHeldAsync(Guid classId, DateOnly date, CancellationToken cancel) =>
        await TaughtFacts.AnyAsync(fact => fact.ClassId == classId && fact.Date == date, cancel)
        || await Attendance.AnyAsync(fact => fact.ClassId == classId && fact.Date == date, cancel);

    /// <summary>The students who learn in one of these cohorts now.</summary>
    public IQueryable<Student> StudentsIn(IReadOnlyCollection<Guid> cohorts) =>
        Students.Where(student => student.CohortIds.Any(cohort => cohorts.Contains(cohort)));

    /// <summary>The students who learn or have learned in one of these cohorts.</summary>
    public IQueryable<Student> StudentsEverIn(IReadOnlyCollection<Guid> cohorts)
    {
        Guid[] ids = [.. cohorts];
        return Students.FromSql(
            $"""
            SELECT students.*, students.xmin FROM students
            WHERE erased IS NULL AND EXISTS (
                SELECT FROM jsonb_array_elements(places) AS place WHERE (place ->> 'cohortId')::uuid = ANY ({ids}))
            """
        );
    }

    /// <summary>The postures the school works with. Pages about what was use <see cref="Postures"/>.</summary>
    public IQueryable<Posture> Catalogue => Postures.Where(posture => !posture.Retired);

    /// <summary>The steps of plans that nobody has announced; none taken back.</summary>
    public IQueryable<PlannedTerm> Drafts => Plans.Where(plan => plan.Number == null && plan.UndoneAt == null);

    /// <summary>Observations that have not been withdrawn.</summary>
    public IQueryable<Observation> StandingObservations =>
        Observations.Where(observation => !Withdrawals.Any(withdrawal => withdrawal.ObservationId == observation.Id));

    /// <summary>How accounts are kept, where the context is opened without the application: by tools and
    /// measurements.</summary>
    private static readonly IServiceProvider AccountsAsHere = new ServiceCollection()
        .Configure<IdentityOptions>(options => options.Stores.SchemaVersion = IdentitySchemaVersions.Version3)
        .BuildServiceProvider();

    protected override void OnConfiguring(DbContextOptionsBuilder optionsBuilder)
    {
        if (optionsBuilder.Options.FindExtension<CoreOptionsExtension>()?.ApplicationServiceProvider is null)
        {
            optionsBuilder.UseApplicationServiceProvider(AccountsAsHere);
        }
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Enum>().HaveConversion<string>();
        configurationBuilder.Properties<Mode>().HaveConversion<ModeConverter>();
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Account>().ToTable("accounts");
        builder.Entity<IdentityUserClaim<Guid>>().ToTable("account_claims");
        builder.Entity<IdentityUserLogin<Guid>>().ToTable("account_logins");
        builder.Entity<IdentityUserToken<Guid>>().ToTable("account_tokens");
        builder.Entity<IdentityUserPasskey<Guid>>().ToTable("account_passkeys");
        builder.ApplyConfigurationsFromAssembly(typeof(SchoolContext).Assembly);
        Rules.Keep(builder);
    }
}
