using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Web;

/// <summary>The keys that cookies and letters are sealed with. They lie in the database, sealed themselves with a
/// certificate that does not: <c>ZEITPLAN_KEYS_FILE</c>, made at the first start, the same for every server of an
/// installation. Whoever has a copy of the database alone can make no sign-in from it.</summary>
internal static class Keys
{
    private const int KeyBits = 3072;

    private const UnixFileMode OwnerOnly = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    public static void Add(IServiceCollection services, IConfiguration configuration)
    {
        services.AddDbContext<InstallationKeys>(
            (provider, options) =>
                options
                    .UseNpgsql(provider.GetRequiredService<SchoolDatabases>().Main.Connection.ConnectionString)
                    .UseSnakeCaseNamingConvention()
        );
        var keys = services
            .AddDataProtection()
            .SetApplicationName("zeitplan")
            .PersistKeysToDbContext<InstallationKeys>();
        if (configuration["ZEITPLAN_KEYS_FILE"] is { Length: > 0 } file)
        {
            keys.ProtectKeysWithCertificate(Certificate(file));
        }
    }

    /// <summary>What is in the file; where there is none, one is made and left there for its owner only.</summary>
    private static X509Certificate2 Certificate(string file)
    {
        if (!File.Exists(file))
        {
            using var key = RSA.Create(KeyBits);
            var now = TimeProvider.System.GetUtcNow();
            using var made = new CertificateRequest(
                "CN=Zeitplan keys",
                key,
                HashAlgorithmName.SHA256,
                RSASignaturePadding.Pkcs1
            ).CreateSelfSigned(now.AddDays(-1), now.AddYears(50));
            // Written aside and put in place whole: a server that starts at the same moment reads all of it or none.
            var aside = $"{file}.{Guid.NewGuid():N}";
            var forOwner = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
            if (!OperatingSystem.IsWindows())
            {
                forOwner.UnixCreateMode = OwnerOnly;
            }

            using (var written = new FileStream(aside, forOwner))
            {
                written.Write(made.Export(X509ContentType.Pkcs12));
            }

            try
            {
                File.Move(aside, file, overwrite: false);
            }
            catch (IOException) when (File.Exists(file))
            {
                File.Delete(aside);
            }
        }

        return X509CertificateLoader.LoadPkcs12FromFile(file, null);
    }
}
