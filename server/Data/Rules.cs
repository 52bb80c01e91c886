using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Data;

/// <summary>The rules the database keeps itself, whoever writes to it: words that exist, numbers within their range.
/// What Entity Framework cannot say (no two terms at once, facts that stay as they are) stands in the migration
/// <c>Rules</c>.</summary>
internal static class Rules
{
    public static void Keep(ModelBuilder builder)
    {
        foreach (var entity in builder.Model.GetEntityTypes())
        {
            foreach (var property in entity.GetProperties())
            {
                var type = Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType;
                if (type.IsEnum)
                {
                    var words = string.Join(", ", Enum.GetNames(type).Select(word => $"'{word}'"));
                    Add(entity, property.GetColumnName(), $"\"{property.GetColumnName()}\" IN ({words})");
                }
            }
        }

        Keep<Hall>("size", "width > 0 AND depth > 0 AND chairs >= 0 AND rail >= 0");
        Keep<Term>("dates", "start <= \"end\"");
        Keep<SchoolClass>("length", "minutes BETWEEN 1 AND 1440");
        Keep<SashLevel>("place", "\"order\" >= 1 AND colour ~ '^#[0-9A-Fa-f]{6}$'");
        Keep<Cohort>("looks", "colour ~ '^#[0-9A-Fa-f]{6}$'");
        Keep<PlannedTerm>("undone", "number IS NULL OR undone_at IS NULL");
        Keep<PlannedTerm>("announced", "(number IS NULL) = (announced_at IS NULL) AND (number IS NULL OR number >= 1)");
        Keep<TaughtFact>(
            "says",
            "(minutes IS NULL OR minutes > 0) AND (kind = 'Link') = (from_id IS NOT NULL AND from_side IS NOT NULL)"
        );
        Keep<TakenOverFact>("says", "stage IN ('NotMet', 'Shown', 'Alone')");
        Keep<Observation>(
            "says",
            "(sign <> 'Stage' OR stage IN ('Follows', 'Alone', 'Flowing')) AND (sign <> 'Fault' OR weight IS NOT NULL) AND (from_id IS NULL) = (from_side IS NULL)"
                + " AND (principle_id IS NULL OR (sign <> 'Stage' AND fault_id IS NULL))"
        );
        Keep<PracticeLog>("minutes", $"minutes BETWEEN 0 AND {PracticeLog.MostMinutes}");
        Keep<WayTried>("says", "(from_id IS NULL) = (from_side IS NULL)");

        void Keep<T>(string name, string sql)
            where T : class => Add(builder.Entity<T>().Metadata, name, sql);
    }

    private static void Add(IMutableEntityType entity, string name, string sql) =>
        entity.AddCheckConstraint($"{entity.GetTableName()}_{name}_can_be", sql);
}
