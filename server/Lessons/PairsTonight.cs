using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Lessons;

/// <summary>Who works with whom in the partner blocks of a lesson.</summary>
internal static class PairsTonight
{
    /// <param name="Groups">Two names each, or three.</param>
    /// <param name="Caution">What is agreed before it begins.</param>
    public sealed record Pairs(
        IReadOnlyList<IReadOnlyList<string>> Groups,
        IReadOnlyList<BesidePerson> Beside,
        string Caution
    );

    /// <param name="Why">As one says it after the name.</param>
    public sealed record BesidePerson(string Name, string Why);

    /// <returns>For each partner block, by its task.</returns>
    public static async Task<IReadOnlyDictionary<string, Pairs>> LoadAsync(
        AskedLesson asked,
        ToArrange toArrange,
        Arrangement arrangement,
        IReadOnlyList<LessonEdit.Joins> joining,
        CancellationToken cancel
    )
    {
        Dictionary<string, Pairs> pairs = [];
        var absent = PeopleThere.Absent(asked, toArrange);
        foreach (var block in arrangement.Blocks.Where(block => block is { Kind: BlockKind.Partner, Task: not null }))
        {
            var cohorts = block.With.Append(block.CohortId ?? Guid.Empty).ToHashSet();
            var there = toArrange
                .Known.TakingPart(toArrange.Cohorts)
                .Where(one => cohorts.Contains(one.CohortId) && !absent.Contains(one.Student.Id))
                .DistinctBy(one => one.Student.Id)
                .ToList();
            var unsettled = await CareTonight.OfAsync(
                asked.Db,
                there,
                cohorts.ToDictionary(id => id, _ => block.Material),
                toArrange.Outlines,
                asked.Date,
                cancel
            );
            var leftOut = unsettled
                .Where(care => care.Decided?.Mode is null)
                .Select(care => care.StudentId)
                .ToHashSet();
            var names = there.ToDictionary(one => one.Student.Id, one => one.Student.ShortName);
            var work = PartnerWork.Of(
                there.Select(one => new InPairs(
                    one.Student.Id,
                    one.Mode.Support,
                    one.Student.Details.Consents.Contains(Consent.PartnerWork),
                    // What is not written down may ask for anything.
                    block.Material.Count > 0
                        ? !leftOut.Contains(one.Student.Id)
                        : one.Student.Limits.Count == 0
                )),
                asked.Lesson.Day.Number!.Value
            );
            pairs[block.Task!] = new(
                [.. work.Groups.Select(group => (IReadOnlyList<string>)[.. group.Select(id => names[id])])],
                [
                    .. work.Beside.Select(one => new BesidePerson(names[one.StudentId], Say(one.Because))),
                    .. joining
                        .Where(joins => joins.IsVisitor && cohorts.Contains(joins.CohortId!.Value))
                        .Select(joins => new BesidePerson(joins.Name, "a visitor, who is asked first")),
                ],
                Cautions.WithAPartner
            );
        }

        return pairs;
    }

    private static string Say(BesideBecause because) =>
        because switch
        {
            BesideBecause.NotAgreed => "has not agreed to partner work",
            BesideBecause.HoldsOn => "has no hand free",
            BesideBecause.NotSettled => "beside it until it is settled how",
            _ => "nobody else is left, so with whoever leads",
        };
}
