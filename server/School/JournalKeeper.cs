using System.Reflection;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>Writes every act of a head on accounts, promotions, erasures, the ladder and settings into the journal, in
/// the same save: what was done is written down, or it was not done.</summary>
internal sealed class JournalKeeper(IHttpContextAccessor http) : SaveChangesInterceptor
{
    public override ValueTask<InterceptionResult<int>> SavingChangesAsync(
        DbContextEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    )
    {
        if (
            eventData.Context is SchoolContext db
            && http.HttpContext?.User is { Identity.IsAuthenticated: true } user
            && Actor.From(user) is { IsHead: true } head
        )
        {
            foreach (var (act, about, text) in db.ChangeTracker.Entries().SelectMany(Acts).ToList())
            {
                Write(db, head, act, about, text);
            }
        }

        return base.SavingChangesAsync(eventData, result, cancellationToken);
    }

    /// <summary>Puts down an act that changes no row by itself, with the next save.</summary>
    public static void Write(SchoolContext db, Actor head, HeadsAct act, Guid? about, string text) =>
        db.Journal.Add(
            new(
                Guid.CreateVersion7(),
                TimeProvider.System.GetUtcNow(),
                head.StaffId,
                act,
                about,
                text.Length > JournalEntry.LongestText ? text[..(JournalEntry.LongestText - 1)] + "…" : text
            )
        );

    private static IEnumerable<(HeadsAct Act, Guid? About, string Text)> Acts(EntityEntry entry) =>
        entry.Entity switch
        {
            StaffMember member => Of(entry, member).Select(text => (HeadsAct.Account, (Guid?)member.Id, text)),
            Account account => Of(entry, account).Select(text => (HeadsAct.Account, (Guid?)account.StaffId, text)),
            Student student => Of(entry, student),
            SashLevel sash => Of(entry, sash).Select(text => (HeadsAct.Ladder, (Guid?)null, text)),
            Core.School => Changes(entry, _ => true).Select(text => (HeadsAct.Settings, (Guid?)null, text)),
            _ => [],
        };

    private static IEnumerable<string> Of(EntityEntry entry, StaffMember member) =>
        entry.State == EntityState.Added
            ? [$"added as {PlainWords.Of(member.Role)}"]
            : Changes(entry, property => property != nameof(StaffMember.Version));

    private static IEnumerable<string> Of(EntityEntry entry, Account account) =>
        Changes(entry, property => property is nameof(account.Locked) or nameof(account.Email));

    private static IEnumerable<(HeadsAct, Guid?, string)> Of(EntityEntry entry, Student student)
    {
        if (entry.State != EntityState.Modified)
        {
            yield break;
        }

        if (entry.Property(nameof(student.Erased)) is { IsModified: true, OriginalValue: null })
        {
            yield return (HeadsAct.Erasure, student.Id, "erased");
        }
        else if (entry.Property(nameof(student.SashId)).IsModified || entry.Property(nameof(student.Half)).IsModified)
        {
            var (from, to) = (SashOf(entry.OriginalValues), SashOf(entry.CurrentValues));
            yield return (HeadsAct.Promotion, student.Id, $"from {from} to {to}");
        }

        string SashOf(PropertyValues values)
        {
            var half = values.GetValue<Half>(nameof(student.Half));
            var name = entry.Context.Set<SashLevel>().Find(values.GetValue<Guid>(nameof(student.SashId)))?.Name;
            return half == Half.None ? name ?? "another sash" : $"{name}, {PlainWords.Of(half)} half";
        }
    }

    private static IEnumerable<string> Of(EntityEntry entry, SashLevel sash) =>
        entry.State switch
        {
            EntityState.Added => [$"{sash.Name} was put on the ladder"],
            EntityState.Deleted => [$"{sash.Name} was taken off the ladder"],
            _ => Changes(entry, property => property != nameof(sash.Version)).Select(text => $"{sash.Name}: {text}"),
        };

    /// <summary>What stands differently, from what to what; of what holds many things, the ones that differ.</summary>
    private static IEnumerable<string> Changes(EntityEntry entry, Func<string, bool> matters) =>
        entry.State != EntityState.Modified
            ? []
            :
            [
                .. from property in entry.Properties
                where property.IsModified && matters(property.Metadata.Name)
                from change in Differences(
                    PlainWords.Of(property.Metadata.Name),
                    property.OriginalValue,
                    property.CurrentValue
                )
                select change,
            ];

    private static IEnumerable<string> Differences(string what, object? before, object? now)
    {
        if (Equals(before, now))
        {
            return [];
        }

        var type = (before ?? now)!.GetType();
        return before is not null && now is not null && type.GetMethod("<Clone>$") is not null
                ? type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                    .Where(property => property.GetIndexParameters().Length == 0)
                    .Select(property =>
                        (
                            PlainWords.Of(property.Name),
                            Before: Said(property.GetValue(before)),
                            Now: Said(property.GetValue(now))
                        )
                    )
                    .Where(difference => difference.Before != difference.Now)
                    .Select(difference => $"{difference.Item1} from {difference.Before} to {difference.Now}")
            : Said(before) == Said(now) ? []
            : [$"{what} from {Said(before)} to {Said(now)}"];
    }

    private static string Said(object? value) =>
        value switch
        {
            null or "" => "nothing",
            bool yes => yes ? "yes" : "no",
            Enum word => PlainWords.Of(word),
            Guid => "somebody",
            string or IFormattable => $"{value}",
            _ => JsonSerializer.Serialize(value, LibraryJson.Stored),
        };
}
