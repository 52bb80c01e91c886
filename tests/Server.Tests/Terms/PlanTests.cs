using System.Text.Json;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>Tests about the plan of Tuesday evening.</summary>
public abstract class PlanTests(DemoTemplate template) : HeronQuayTests(template)
{
    protected static async Task<string> PathAsync(Caller caller) =>
        $"/api/terms/{await TermAsync(caller)}/classes/{(await ClassAsync(caller)).Text("id")}/plan";

    protected static JsonElement Chip(JsonElement plan, string cohort, string name) =>
        plan.GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.Text("name") == cohort)
            .GetProperty("chips")
            .EnumerateArray()
            .Single(chip => chip.Text("name") == name);

    protected static bool IsDraft(JsonElement plan) => plan.GetProperty("draft").ValueKind != JsonValueKind.Null;

    /// <summary>What a change of one lesson is sent with.</summary>
    protected static object Lesson(
        JsonElement schoolClass,
        string? closed = null,
        string? movedTo = null,
        int? minutes = null,
        Guid? hallId = null,
        object? school = null
    ) =>
        new
        {
            closed,
            movedTo,
            start = (string?)null,
            minutes,
            hallId,
            away = Array.Empty<object>(),
            version = schoolClass.GetProperty("version").GetUInt32(),
            school,
        };
}
