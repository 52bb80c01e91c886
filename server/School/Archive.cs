using System.Security.Cryptography;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.School;

/// <summary>
/// The whole school as one open file: a ZIP with a table a CSV file, the forms once more as JSON, a manifest with the hash
/// of each, and a README (docs/formats). What is about devices and secrets is no part of it: sign-ins, passwords, keys,
/// letters.
/// </summary>
internal static class Archive
{
    public const string Kind = "zeitplan archive 1";
    public const string Manifest = "manifest.json";
    public const string Readme = "README.txt";
    public const string Forms = "forms.json";
    public const string Accounts = "sign-ins.csv";

    /// <param name="Schema">The last migration of the school it was written from.</param>
    /// <param name="Files">All of them but the manifest.</param>
    public sealed record Contents(
        string Kind,
        DateTimeOffset Made,
        string School,
        string Schema,
        IReadOnlyList<File> Files
    );

    /// <param name="Sha256">In hexadecimal.</param>
    /// <param name="Rows">Null for what is no table.</param>
    public sealed record File(string Name, long? Rows, string Sha256);

    /// <param name="Columns">In the order they are written; what the database computes is left out.</param>
    public sealed record Table(string Name, IReadOnlyList<string> Columns, IReadOnlyList<string> Key)
    {
        public string FileName => $"{Name}.csv";
    }

    private static readonly Type[] NoPart =
    [
        typeof(Account),
        typeof(SignIn),
        typeof(Letter),
        typeof(CalendarLink),
        typeof(Microsoft.AspNetCore.DataProtection.EntityFrameworkCore.DataProtectionKey),
        typeof(IdentityUserClaim<Guid>),
        typeof(IdentityUserLogin<Guid>),
        typeof(IdentityUserToken<Guid>),
        typeof(IdentityUserPasskey<Guid>),
    ];

    /// <summary>Every table of the school, each after those it refers to.</summary>
    public static async Task<IReadOnlyList<Table>> TablesAsync(SchoolContext db, CancellationToken cancel)
    {
        var open = db
            .Model.GetEntityTypes()
            .Where(entity => !entity.IsOwned() && entity.GetTableName() is not null && !NoPart.Contains(entity.ClrType))
            .OrderBy(entity => entity.GetTableName(), StringComparer.Ordinal)
            .Select(TableOf)
            .ToList();
        // Some references only the database knows.
        var refers = (
            await db
                .Database.SqlQuery<Reference>(
                    $"SELECT conrelid::regclass::text AS \"from\", confrelid::regclass::text AS \"to\" FROM pg_constraint WHERE contype = 'f'"
                )
                .ToListAsync(cancel)
        ).ToLookup(reference => reference.From, reference => reference.To);
        List<Table> ordered = [];
        while (open.Count > 0)
        {
            var next = open.Find(table =>
                refers[table.Name].All(to => to == table.Name || open.TrueForAll(other => other.Name != to))
            );
            ordered.Add(next ?? throw new InvalidOperationException("Tables refer to each other in a circle."));
            open.Remove(next);
        }

        return ordered;
    }

    private sealed record Reference(string From, string To);

    private static Table TableOf(IEntityType entity) =>
        new(
            entity.GetTableName()!,
            [
                .. entity
                    .GetProperties()
                    .Where(property => property.GetComputedColumnSql() is null && !property.IsConcurrencyToken)
                    .Select(property => property.GetColumnName())
                    .Order(StringComparer.Ordinal),
            ],
            [.. entity.FindPrimaryKey()!.Properties.Select(property => property.GetColumnName())]
        );

    public static string Quoted(IEnumerable<string> names) => string.Join(", ", names.Select(name => $"\"{name}\""));

    public static async Task<string> HashAsync(Stream content, CancellationToken cancel) =>
        Convert.ToHexStringLower(await SHA256.HashDataAsync(content, cancel));
}
