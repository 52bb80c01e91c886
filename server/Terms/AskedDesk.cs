using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>The plan an address names, laid out as it is now. Whoever teaches the class may have it.</summary>
internal record AskedDesk(
    [FromRoute(Name = "termId")] Guid TermId,
    [FromRoute(Name = "classId")] Guid ClassId,
    SchoolContext Db,
    Actor Actor,
    SchoolClock Clock
) : IAsked
{
    private PlanDesk? desk;

    public PlanDesk Desk => desk ?? throw new InvalidOperationException("A desk is opened before it is used.");

    public virtual async Task<ProblemHttpResult?> OpenAsync(CancellationToken cancel)
    {
        desk = await PlanDesk.OpenAsync(TermId, ClassId, Db, Clock, cancel);
        if (desk is null)
        {
            return Refusals.NotFound("This term or class");
        }

        return Actor.Teaches(desk.Class, desk.Today) ? null : Refusals.NotYours();
    }

    /// <summary>The plan on the table after something was done to it.</summary>
    public async Task<PlanView.Response> ShowAgainAsync(CancellationToken cancel) =>
        await (await PlanDesk.OpenAsync(TermId, ClassId, Db, Clock, cancel))!.ShowCurrentAsync(cancel);
}

/// <summary>A step of the head's work on a plan. It is taken from the draft they look at and from no other.</summary>
/// <param name="Draft">Which that is; null when they see none.</param>
internal sealed record AskedStep(
    [FromRoute(Name = "termId")] Guid TermId,
    [FromRoute(Name = "classId")] Guid ClassId,
    [FromQuery(Name = "draft")] Guid? Draft,
    SchoolContext Db,
    Actor Actor,
    SchoolClock Clock
) : AskedDesk(TermId, ClassId, Db, Actor, Clock)
{
    public override async Task<ProblemHttpResult?> OpenAsync(CancellationToken cancel) =>
        await base.OpenAsync(cancel) ?? Desk.WhyNoStepFrom(Draft);
}
