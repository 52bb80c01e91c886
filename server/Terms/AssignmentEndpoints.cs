using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>Segments of forms given to cohorts for a term: checked on the spot, given one by one or from a template for
/// all at once.</summary>
internal static class AssignmentEndpoints
{
    public sealed record Given(Guid CohortId, IReadOnlyList<GivenSegment> Segments, uint Version);

    /// <param name="From">The name of its first posture.</param>
    /// <param name="To">And of its last.</param>
    public sealed record GivenSegment(AssignedSegment Segment, string Form, string From, string To);

    /// <param name="Version">Of what is replaced; null for a first one.</param>
    public sealed record Request(IReadOnlyList<AssignedSegment> Segments, uint? Version);

    public sealed record CheckRequest(IReadOnlyList<AssignedSegment> Segments);

    /// <param name="Segments">One for each that was sent.</param>
    /// <param name="Finish">When all that is new is likely to have been introduced; null while something is left over
    /// or nothing is new.</param>
    public sealed record CheckResponse(
        IReadOnlyList<AssignmentFinding> Findings,
        IReadOnlyList<SegmentReport> Segments,
        IReadOnlyList<Unit> Units,
        decimal Minutes,
        decimal MinutesThere,
        DateOnly? Finish
    );

    /// <param name="Changes">What the cohort's own run of the form does differently from it.</param>
    public sealed record SegmentReport(Guid Id, int Positions, IReadOnlyList<string> Changes);

    /// <summary>Something new, with the minutes it takes.</summary>
    public sealed record Unit(string Name, decimal Minutes, string Effort);

    public sealed record TemplateRequest(AssignmentTemplate Template, DateOnly Target);

    /// <param name="Version">Of what it would replace; null where the cohort has nothing yet.</param>
    public sealed record Proposal(
        Guid CohortId,
        IReadOnlyList<AssignedSegment> Segments,
        string Because,
        uint? Version
    );

    public sealed record ManyRequest(IReadOnlyList<ForCohort> Cohorts);

    public sealed record ForCohort(Guid CohortId, IReadOnlyList<AssignedSegment> Segments, uint? Version);

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/assignments", List).WithName("assignments");
        var term = api.Head.MapGroup("/terms/{termId:guid}").ProducesProblem(404);
        term.MapPut("/cohorts/{cohortId:guid}/assignment", Assign).ProducesProblem(409).WithName("assign");
        term.MapPost("/cohorts/{cohortId:guid}/assignment/check", Check).TakesATurn().WithName("checkAssignment");
        term.MapPost("/assignments/proposals", Propose).WithName("proposeAssignments");
        term.MapPut("/assignments", AssignMany).ProducesProblem(409).WithName("assignMany");
    }

    /// <summary>What the cohorts of whoever asks have been given for this term, or for the next one.</summary>
    private static async Task<Ok<IReadOnlyList<Given>>> List(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        if (await CurrentTerm.FindAsync(db, today, cancel) is not { } term)
        {
            return TypedResults.Ok<IReadOnlyList<Given>>([]);
        }

        var mine = (await actor.ClassesAsync(db, today, cancel)).Select(schoolClass => schoolClass.Id).ToList();
        var given = await (
            from assignment in db.Assignments.AsNoTracking()
            join cohort in db.Cohorts on assignment.CohortId equals cohort.Id
            where assignment.TermId == term.Id && mine.Contains(cohort.ClassId)
            select assignment
        ).ToListAsync(cancel);
        var forms = await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel);
        var postures = await Material.OutlinesAsync(db, cancel);
        return TypedResults.Ok<IReadOnlyList<Given>>([
            .. given.Select(assignment => new Given(
                assignment.CohortId,
                [.. assignment.Segments.Select(Show)],
                assignment.Version
            )),
        ]);

        GivenSegment Show(AssignedSegment segment)
        {
            var form = forms[segment.FormId];
            var positions = segment.PositionsOf(form);
            return new(segment, form.Name, NameOf(positions[0]), NameOf(positions[^1]));
        }

        string NameOf(Position position) => postures[position.PostureId].NameOn(position.Side);
    }

    internal static Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Assign(
        Guid termId,
        Guid cohortId,
        Request request,
        SchoolContext db,
        CancellationToken cancel
    ) => KeepAsync(termId, [new(cohortId, request.Segments, request.Version)], _ => "", db, cancel);

    /// <summary>All of them or none.</summary>
    private static Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> AssignMany(
        Guid termId,
        ManyRequest request,
        SchoolContext db,
        CancellationToken cancel
    ) => KeepAsync(termId, request.Cohorts, at => $"cohorts[{at}].", db, cancel);

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> KeepAsync(
        Guid termId,
        IReadOnlyList<ForCohort> given,
        Func<int, string> path,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var ids = given.Select(assignment => assignment.CohortId).ToList();
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => ids.Contains(cohort.Id))
            .ToDictionaryAsync(cohort => cohort.Id, cohort => cohort.Name, cancel);
        if (
            await db.Terms.AsNoTracking().SingleOrDefaultAsync(term => term.Id == termId, cancel) is not { } term
            || cohorts.Count != ids.Count
        )
        {
            return Refusals.NotFound(cohorts.Count != ids.Count ? "This cohort" : "This term");
        }

        var forms = await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel);
        if (
            given
                .SelectMany(
                    (assignment, at) =>
                        Assignment
                            .Check(assignment.Segments, forms, term)
                            .Select(problem => problem with { Field = path(at) + problem.Field })
                )
                .ToList() is
            { Count: > 0 } problems
        )
        {
            return Refusals.Invalid(problems);
        }

        var kept = await db
            .Assignments.Where(assignment => assignment.TermId == termId && ids.Contains(assignment.CohortId))
            .ToDictionaryAsync(assignment => assignment.CohortId, cancel);
        var stale = given
            .Where(assignment =>
                kept.TryGetValue(assignment.CohortId, out var had) && had.Version != assignment.Version
            )
            .Select(assignment =>
                $"{cohorts[assignment.CohortId]} has {Segments(kept[assignment.CohortId].Segments.Count)} by now."
            )
            .ToList();
        if (stale.Count > 0)
        {
            return Refusals.Stale("The assignment", stale);
        }

        foreach (var assignment in given)
        {
            if (kept.TryGetValue(assignment.CohortId, out var had))
            {
                had.Rewrite(assignment.Segments);
            }
            else
            {
                db.Assignments.Add(
                    Assignment.Create(Guid.CreateVersion7(), termId, assignment.CohortId, assignment.Segments)
                );
            }
        }

        try
        {
            await db.SaveChangesAsync(cancel);
            return TypedResults.NoContent();
        }
        catch (DbUpdateException)
        {
            return Refusals.Stale("The assignment", ["Somebody else assigned something at the same moment."]);
        }
    }

    private static async Task<Results<Ok<CheckResponse>, ValidationProblem, ProblemHttpResult>> Check(
        Guid termId,
        Guid cohortId,
        CheckRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var term = await db.Terms.AsNoTracking().SingleOrDefaultAsync(term => term.Id == termId, cancel);
        var cohort = await db.Cohorts.AsNoTracking().SingleOrDefaultAsync(cohort => cohort.Id == cohortId, cancel);
        if (term is null || cohort is null)
        {
            return Refusals.NotFound(term is null ? "This term" : "This cohort");
        }

        var forms = await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel);
        if (Assignment.Check(request.Segments, forms, term).ToList() is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var today = await clock.TodayAsync(cancel);
        var material = await Material.LoadAsync(db, cancel);
        var outlines = material.Postures.ToDictionary(posture => posture.Key, posture => posture.Value.Outline);
        var facts = await ProgressBooks.LoadAsync(db, [cohortId], today, cancel);
        var findings = AssignmentCheck
            .Of(
                request.Segments,
                forms,
                outlines,
                cohort.Mode,
                facts.In(cohortId),
                (student, of) => facts.Book.StandingOf(student, of).Stage,
                await ElsewhereAsync(term, cohort, facts.Students, forms, db, cancel)
            )
            .ToList();

        var schoolClass = await db.Classes.AsNoTracking().SingleAsync(its => its.Id == cohort.ClassId, cancel);
        var problem = (
            await TermProblemLoader.LoadAsync(
                db,
                term,
                schoolClass,
                today,
                cancel,
                Assignment.Create(Guid.Empty, termId, cohortId, request.Segments)
            )
        ).Problem;
        var plan = TermPlanner.Plan(problem, cancel: cancel);
        var (mine, planned) = (
            problem.Cohorts.Single(its => its.Id == cohortId),
            plan.Cohorts.Single(its => its.CohortId == cohortId)
        );
        var open = mine.Units.Skip(mine.IntroducedIn.Count).ToList();
        var (needed, there) = (
            open.Total(unit => unit.IntroduceSeconds).Minutes,
            SecondsThere(problem, plan, planned, mine.TargetLesson).Minutes
        );
        var finish = planned.FinishLesson is { } lesson ? problem.Lessons[lesson].Date : (DateOnly?)null;
        if (request.Segments.LastOrDefault(segment => segment.Purpose == Purpose.New) is { } last)
        {
            findings.AddRange(
                AssignmentCheck.Minutes(
                    last,
                    needed,
                    there,
                    finish,
                    [.. planned.LeftOver.Select(left => mine.Units[left.Unit].Name)]
                )
            );
        }

        return TypedResults.Ok(
            new CheckResponse(
                findings,
                [.. request.Segments.Select(segment => Report(segment, forms[segment.FormId], material, cohort.Mode))],
                [.. open.Select(unit => new Unit(unit.Name, unit.IntroduceSeconds.Minutes, unit.Effort))],
                needed,
                there,
                finish
            )
        );
    }

    private static SegmentReport Report(AssignedSegment segment, Form form, Material material, Mode mode)
    {
        var own = GroupSegment.Of(
            segment with { LeftOut = [] } is var whole ? whole.PositionsOf(form) : [],
            [.. segment.LeftOut],
            material.Postures,
            mode,
            material.Ways
        );
        return new(segment.Id, own.Positions.Count, own.Changes);
    }

    /// <summary>What the lessons up to the target can hold for this cohort beside what the others use of the
    /// teachers.</summary>
    private static Seconds SecondsThere(TermProblem problem, TermPlan plan, CohortPlan mine, int target) =>
        new(
            problem
                .Lessons.Index()
                .Where(lesson => lesson.Index <= target && lesson.Item is { Held: false, Kind: LessonKind.Ordinary })
                .Sum(lesson =>
                    Math.Max(
                        0,
                        Math.Min(
                            lesson.Item.TeachableSeconds,
                            lesson.Item.TeacherSeconds
                                - (plan.LedSeconds[lesson.Index] - mine.Lessons[lesson.Index].TeacherSeconds)
                        )
                    )
                )
        );

    /// <summary>What the same people have been given in their other classes.</summary>
    private static async Task<
        IReadOnlyList<(string Class, int People, IReadOnlySet<PostureSide> Postures)>
    > ElsewhereAsync(
        Term term,
        Cohort cohort,
        IReadOnlyList<Student> students,
        Dictionary<Guid, Form> forms,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var others = students
            .SelectMany(student => student.CohortIds)
            .Where(id => id != cohort.Id)
            .CountBy(id => id)
            .ToDictionary();
        var ids = others.Keys.ToList();
        var given = await db
            .Assignments.AsNoTracking()
            .Where(assignment => assignment.TermId == term.Id && ids.Contains(assignment.CohortId))
            .ToListAsync(cancel);
        var classes = await (
            from other in db.Cohorts
            join schoolClass in db.Classes on other.ClassId equals schoolClass.Id
            where ids.Contains(other.Id)
            select new { other.Id, schoolClass.Name }
        ).ToDictionaryAsync(other => other.Id, other => other.Name, cancel);
        return
        [
            .. given.Select(assignment =>
                (
                    classes[assignment.CohortId],
                    others[assignment.CohortId],
                    (IReadOnlySet<PostureSide>)
                        assignment
                            .Segments.SelectMany(segment => segment.PositionsOf(forms[segment.FormId]))
                            .Select(position => new PostureSide(position.PostureId, position.Side))
                            .ToHashSet()
                )
            ),
        ];
    }

    private static async Task<Results<Ok<IReadOnlyList<Proposal>>, ValidationProblem, ProblemHttpResult>> Propose(
        Guid termId,
        TemplateRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Terms.AsNoTracking().SingleOrDefaultAsync(term => term.Id == termId, cancel) is not { } term)
        {
            return Refusals.NotFound("This term");
        }

        if (!term.Contains(request.Target))
        {
            return Refusals.Invalid(
                "target",
                $"The target lies outside {term.Name} ({term.Start:yyyy-MM-dd} to {term.End:yyyy-MM-dd})."
            );
        }

        var today = await clock.TodayAsync(cancel);
        var going = await db
            .Classes.Where(schoolClass => schoolClass.Closed == null || schoolClass.Closed >= today)
            .Select(schoolClass => schoolClass.Id)
            .ToListAsync(cancel);
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => going.Contains(cohort.ClassId))
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);
        var before = await db
            .Terms.AsNoTracking()
            .Where(earlier => earlier.Start < term.Start)
            .OrderByDescending(earlier => earlier.Start)
            .Select(earlier => (Guid?)earlier.Id)
            .FirstOrDefaultAsync(cancel);
        var last = await db
            .Assignments.AsNoTracking()
            .Where(assignment => assignment.TermId == before)
            .ToDictionaryAsync(assignment => assignment.CohortId, assignment => assignment.Segments, cancel);
        var now = await db
            .Assignments.AsNoTracking()
            .Where(assignment => assignment.TermId == termId)
            .ToDictionaryAsync(assignment => assignment.CohortId, assignment => assignment.Version, cancel);
        var proposals = AssignmentTemplates.Propose(
            request.Template,
            cohorts,
            last,
            await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel),
            await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel),
            request.Target,
            () => Guid.CreateVersion7(clock.Now)
        );
        return TypedResults.Ok<IReadOnlyList<Proposal>>([
            .. proposals.Select(proposal => new Proposal(
                proposal.CohortId,
                proposal.Segments,
                proposal.Because,
                now.TryGetValue(proposal.CohortId, out var version) ? version : null
            )),
        ]);
    }

    private static string Segments(int count) => count == 1 ? "one segment" : $"{count} segments";
}
