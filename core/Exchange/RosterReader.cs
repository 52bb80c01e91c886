using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Exchange;

/// <summary>What a line says about one student, in the school's own terms. What it leaves out stays as it is.</summary>
internal sealed class RosterReader(RosterCells cells, RosterSchool school)
{
    /// <returns>Null where the level cannot be told.</returns>
    public StudentText? Text(RosterLine line, string given, string family, DateOnly? joined, Student? existing)
    {
        var (sash, half) = SashOf(line, existing);
        var cohorts = CohortsOf(line, sash, half, existing);
        var details = existing?.Details ?? new();
        return sash is null
            ? null
            : new(given, family, sash.Id, half, cohorts, joined ?? existing?.Joined ?? school.Today)
            {
                Details = details with
                {
                    Mode = ModeOf(line) ?? details.Mode,
                    Aim = AimOf(line) ?? details.Aim,
                    Scope = cells.Given(line, RosterField.Scope, details.Scope),
                    ContactName = cells.Given(line, RosterField.ContactName, details.ContactName),
                    ContactPhone = cells.Given(line, RosterField.ContactPhone, details.ContactPhone),
                },
            };
    }

    /// <summary>"Fern", "fern (senior)", "Fern newer", or a half in a column of its own.</summary>
    private (SashLevel? Sash, People.Half Half) SashOf(RosterLine line, Student? existing)
    {
        var written = RosterText.Plain(cells.Cell(line, RosterField.Sash));
        var half =
            HalfOf(line)
            ?? (
                written.EndsWith(" newer", StringComparison.Ordinal) ? People.Half.Newer
                : written.EndsWith(" senior", StringComparison.Ordinal) ? People.Half.Senior
                : null
            );
        if (written.Length == 0)
        {
            var kept =
                school.Sashes.FirstOrDefault(known => known.Id == existing?.SashId)
                ?? school.Sashes.MinBy(known => known.Order);
            if (kept is null)
            {
                cells.Say(line, RosterField.Sash, "The school has no sash yet. Make the ladder first.");
            }

            return (kept, half ?? existing?.Half ?? People.Half.None);
        }

        var sash = school.Sashes.FirstOrDefault(known =>
            RosterText.Plain(known.Name) is var name
            && (name == written || written.StartsWith($"{name} ", StringComparison.Ordinal))
        );
        if (sash is null)
        {
            cells.Say(
                line,
                RosterField.Sash,
                $"The ladder has no sash {cells.Cell(line, RosterField.Sash)}. It has {string.Join(", ", school.Sashes.OrderBy(one => one.Order).Select(one => one.Name))}."
            );
        }

        return (sash, half ?? (existing is not null && existing.SashId == sash?.Id ? existing.Half : People.Half.None));
    }

    private People.Half? HalfOf(RosterLine line)
    {
        switch (RosterText.Plain(cells.Cell(line, RosterField.Half)))
        {
            case "":
                return null;
            case "newer" or "new" or "n":
                return People.Half.Newer;
            case "senior" or "s":
                return People.Half.Senior;
            case "none":
                return People.Half.None;
            default:
                cells.Say(
                    line,
                    RosterField.Half,
                    $"A half is newer or senior, not {cells.Cell(line, RosterField.Half)}."
                );
                return null;
        }
    }

    /// <summary>By the cohort's name, within the class where one is named; by class and level where no cohort
    /// is.</summary>
    private IReadOnlyList<Guid> CohortsOf(RosterLine line, SashLevel? sash, People.Half half, Student? existing)
    {
        var (className, cohortName) = (
            RosterText.Plain(cells.Cell(line, RosterField.Class)),
            RosterText.Plain(cells.Cell(line, RosterField.Cohort))
        );
        if (className.Length == 0 && cohortName.Length == 0)
        {
            return existing?.CohortIds ?? [];
        }

        var classes = school
            .Classes.Where(schoolClass => className.Length == 0 || RosterText.Plain(schoolClass.Value) == className)
            .Select(schoolClass => schoolClass.Key)
            .ToHashSet();
        if (classes.Count == 0)
        {
            cells.Say(
                line,
                RosterField.Class,
                $"The school has no class {cells.Cell(line, RosterField.Class)}. It has {string.Join(", ", school.Classes.Values.Order())}."
            );
            return [];
        }

        var there = school.Cohorts.Where(cohort => classes.Contains(cohort.ClassId)).ToList();
        var fitting =
            cohortName.Length > 0
                ? there.Where(cohort => RosterText.Plain(cohort.Name) == cohortName).ToList()
                : there
                    .Where(cohort =>
                        cohort.SashId == sash?.Id && (cohort.Half == People.Half.None || cohort.Half == half)
                    )
                    .ToList();
        if (fitting.Count == 1)
        {
            // A class named anew takes the place of their cohort in it; their other classes stay.
            var others =
                existing?.CohortIds.Where(id =>
                    school.Cohorts.FirstOrDefault(cohort => cohort.Id == id)?.ClassId is { } kept
                    && kept != fitting[0].ClassId
                )
                ?? [];
            return [fitting[0].Id, .. others];
        }

        cells.Say(
            line,
            cohortName.Length > 0 ? RosterField.Cohort : RosterField.Class,
            fitting.Count > 1
                    ? $"{fitting.Count} cohorts could be meant: {string.Join(", ", fitting.Select(cohort => $"{school.Classes[cohort.ClassId]}, {cohort.Name}"))}. Name class and cohort."
                : cohortName.Length > 0
                    ? $"There is no cohort {cells.Cell(line, RosterField.Cohort)}{(className.Length > 0 ? " in this class" : "")}. There are {string.Join(", ", there.Select(cohort => cohort.Name).Distinct())}."
                : $"The class has no cohort for {sash?.Name ?? "this sash"}. Name the cohort."
        );
        return [];
    }

    private Mode? ModeOf(RosterLine line)
    {
        var written = RosterText.Plain(cells.Cell(line, RosterField.Mode));
        if (written.Length == 0)
        {
            return null;
        }

        var mode = Mode
            .Named.Select(mode => (Mode?)mode)
            .FirstOrDefault(mode =>
                RosterText.Plain(mode!.Value.Name) == written
                || (written is "chair" or "sitting" && mode.Value == Mode.Seated)
            );
        if (mode is null)
        {
            cells.Say(
                line,
                RosterField.Mode,
                $"A mode is {string.Join(", ", Mode.Named.Select(one => one.Name))}, not {cells.Cell(line, RosterField.Mode)}."
            );
        }

        return mode;
    }

    private Aim? AimOf(RosterLine line)
    {
        switch (RosterText.Plain(cells.Cell(line, RosterField.Aim)))
        {
            case "":
                return null;
            case "health":
                return Aim.Health;
            case "the art" or "art" or "form":
                return Aim.TheArt;
            case "partner work" or "partner":
                return Aim.PartnerWork;
            default:
                cells.Say(
                    line,
                    RosterField.Aim,
                    $"An aim is health, the art or partner work, not {cells.Cell(line, RosterField.Aim)}."
                );
                return null;
        }
    }
}
