using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;

namespace Zeitplan.Server.Data;

/// <summary>The keys that cookies and letters are sealed with: the same for every school of an installation, in the
/// database of its first.</summary>
public sealed class InstallationKeys(DbContextOptions<InstallationKeys> options)
    : DbContext(options),
        IDataProtectionKeyContext
{
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();
}
