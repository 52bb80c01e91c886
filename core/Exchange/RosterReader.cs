using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

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
                    Consents = ConsentsOf(line, details.Consents),
                },
            };
    }

    /// <summary>What the columns about forms say, later ones over earlier ones.</summary>
    public IReadOnlyList<RosterKnowledge> Knows(RosterLine line)
    {
        Dictionary<PostureSide, Stage> knows = [];
        foreach (var (column, written) in cells.Knowledge(line))
        {
            var form = school.Forms.FirstOrDefault(form => form.Id == column.FormId);
            if (form is null || StageOf(line, written) is not { } stage)
            {
                continue;
            }

            foreach (
                var position in form.Positions.Where(position =>
                    column.SectionId is null || position.SectionId == column.SectionId
                )
            )
            {
                knows[new(position.PostureId, position.Side)] = stage;
            }
        }

        return [.. knows.Select(of => new RosterKnowledge(of.Key, of.Value))];
    }

    private static readonly (Stage Stage, string Name)[] Stages =
    [
        (Stage.Alone, "does it alone"),
        (Stage.Shown, "was shown it"),
        (Stage.NotMet, "has not met it"),
    ];

    private Stage? StageOf(RosterLine line, string written)
    {
        var plain = cells.Explained(RosterField.Knows, written) ?? RosterText.Plain(written);
        Stage? stage = plain switch
        {
            "yes" or "y" or "x" or "1" or "alone" or "all" or "knows" or "Alone" => Stage.Alone,
            "shown" or "partly" or "Shown" => Stage.Shown,
            "no" or "n" or "0" or "not met" or "none" or "NotMet" => Stage.NotMet,
            _ => null,
        };
        if (stage is null)
        {
            cells.Ask(
                line,
                RosterField.Knows,
                written,
                Stages.Select(one => ($"{one.Stage}", one.Name)),
                $"What somebody knows of a form is yes, shown or no, not {written}."
            );
        }

        return stage;
    }

    private static readonly (RosterField Field, Consent Consent)[] Consents =
    [
        (RosterField.HandsOn, Consent.HandsOn),
        (RosterField.PartnerWork, Consent.PartnerWork),
        (RosterField.Recording, Consent.Recording),
        (RosterField.Messages, Consent.Messages),
    ];

    /// <summary>Yes and no as people write it; an empty cell leaves what is agreed as it is.</summary>
    private IReadOnlyList<Consent> ConsentsOf(RosterLine line, IReadOnlyList<Consent> kept)
    {
        HashSet<Consent> agreed = [.. kept];
        foreach (var (field, consent) in Consents)
        {
            var written = cells.Cell(line, field);
            if (written.Length == 0)
            {
                continue;
            }

            switch (cells.Explained(field, written) ?? RosterText.Plain(written))
            {
                case "yes" or "y" or "x" or "1" or "true" or "agreed":
                    agreed.Add(consent);
                    break;
                case "no" or "n" or "0" or "false":
                    agreed.Remove(consent);
                    break;
                default:
                    cells.Ask(
                        line,
                        field,
                        written,
                        [("yes", "yes"), ("no", "no")],
                        $"Somebody has agreed, yes or no, not {written}."
                    );
                    break;
            }
        }

        return kept.Count == agreed.Count && kept.All(agreed.Contains) ? kept : [.. agreed.Order()];
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

        var explained = cells.Explained(RosterField.Sash, written);
        var sash = explained is not null
            ? school.Sashes.FirstOrDefault(known => $"{known.Id}" == explained)
            : school.Sashes.FirstOrDefault(known =>
                RosterText.Plain(known.Name) is var name
                && (name == written || written.StartsWith($"{name} ", StringComparison.Ordinal))
            );
        if (sash is null)
        {
            cells.Ask(
                line,
                RosterField.Sash,
                cells.Cell(line, RosterField.Sash),
                school.Sashes.OrderBy(one => one.Order).Select(one => ($"{one.Id}", one.Name)),
                $"The ladder has no sash {cells.Cell(line, RosterField.Sash)}. It has {string.Join(", ", school.Sashes.OrderBy(one => one.Order).Select(one => one.Name))}."
            );
        }

        return (sash, half ?? (existing is not null && existing.SashId == sash?.Id ? existing.Half : People.Half.None));
    }

    private People.Half? HalfOf(RosterLine line)
    {
        var written = cells.Cell(line, RosterField.Half);
        switch (cells.Explained(RosterField.Half, written) ?? RosterText.Plain(written))
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
                cells.Ask(
                    line,
                    RosterField.Half,
                    written,
                    [("newer", "the newer half"), ("senior", "the senior half"), ("none", "no half")],
                    $"A half is newer or senior, not {written}."
                );
                return null;
        }
    }

    /// <summary>By the cohort's name, within the class where one is named; by class and level where no cohort
    /// is.</summary>
    private IReadOnlyList<Guid> CohortsOf(RosterLine line, SashLevel? sash, People.Half half, Student? existing)
    {
        var (className, cohortName) = (
            NameOf(line, RosterField.Class, id => school.Classes.GetValueOrDefault(id)),
            NameOf(line, RosterField.Cohort, id => school.Cohorts.FirstOrDefault(cohort => cohort.Id == id)?.Name)
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
            cells.Ask(
                line,
                RosterField.Class,
                cells.Cell(line, RosterField.Class),
                school.Classes.OrderBy(one => one.Value).Select(one => ($"{one.Key}", one.Value)),
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

        if (cohortName.Length > 0 && fitting.Count == 0)
        {
            cells.Ask(
                line,
                RosterField.Cohort,
                cells.Cell(line, RosterField.Cohort),
                there.Select(cohort => ($"{cohort.Id}", cohort.Name)).DistinctBy(choice => choice.Name),
                $"There is no cohort {cells.Cell(line, RosterField.Cohort)}{(className.Length > 0 ? " in this class" : "")}. There are {string.Join(", ", there.Select(cohort => cohort.Name).Distinct())}."
            );
            return [];
        }

        cells.Say(
            line,
            cohortName.Length > 0 ? RosterField.Cohort : RosterField.Class,
            fitting.Count > 1
                ? $"{fitting.Count} cohorts could be meant: {string.Join(", ", fitting.Select(cohort => $"{school.Classes[cohort.ClassId]}, {cohort.Name}"))}. Name class and cohort."
                : $"The class has no cohort for {sash?.Name ?? "this sash"}. Name the cohort."
        );
        return [];
    }

    /// <summary>What is written, in the school's own words, plain.</summary>
    private string NameOf(RosterLine line, RosterField field, Func<Guid, string?> named)
    {
        var written = cells.Cell(line, field);
        return RosterText.Plain(
            Guid.TryParse(cells.Explained(field, written), out var id) && named(id) is { } name ? name : written
        );
    }

    private Mode? ModeOf(RosterLine line)
    {
        var cell = cells.Cell(line, RosterField.Mode);
        var written = RosterText.Plain(cells.Explained(RosterField.Mode, cell) ?? cell);
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
            cells.Ask(
                line,
                RosterField.Mode,
                cell,
                Mode.Named.Select(one => (one.Name, one.Name)),
                $"A mode is {string.Join(", ", Mode.Named.Select(one => one.Name))}, not {cells.Cell(line, RosterField.Mode)}."
            );
        }

        return mode;
    }

    private Aim? AimOf(RosterLine line)
    {
        var written = cells.Cell(line, RosterField.Aim);
        switch (cells.Explained(RosterField.Aim, written) ?? RosterText.Plain(written))
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
                cells.Ask(
                    line,
                    RosterField.Aim,
                    written,
                    [("health", "health"), ("the art", "the art"), ("partner work", "partner work")],
                    $"An aim is health, the art or partner work, not {written}."
                );
                return null;
        }
    }
}
