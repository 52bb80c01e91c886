using Zeitplan.Server.Forms;
using Zeitplan.Server.Lessons;
using Zeitplan.Server.People;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.Web;

/// <summary>Every endpoint there is.</summary>
internal static class Api
{
    public static void MapApi(this IEndpointRouteBuilder app)
    {
        var api = ByRank.Under(
            app.MapGroup("/api")
                .AddEndpointFilter(Gate.RequireToken)
                .AddEndpointFilterFactory(Gate.RequireSense)
                .ProducesProblem(503)
        );
        Session.Map(api);
        PostureEndpoints.Map(api);
        KnownFaultEndpoint.Map(api);
        FigureEndpoint.Map(api);
        FormEndpoints.Map(api);
        FormViews.Map(api);
        LinkEndpoints.Map(api);
        LibraryEndpoints.Map(api);
        OwnSchoolEndpoints.Map(api);
        ArchiveEndpoints.Map(api);
        AccountEndpoints.Map(api);
        SecondFactor.Map(api);
        StaffEndpoints.Map(api);
        LetterEndpoints.Map(api);
        JournalEndpoints.Map(api);
        SchoolEndpoints.Map(api);
        ConventionEndpoints.Map(api);
        TeachingEndpoints.Map(api);
        RulesEndpoint.Map(api);
        PeopleEndpoints.Map(api);
        LadderEndpoints.Map(api);
        HallEndpoints.Map(api);
        HallFitEndpoint.Map(api);
        ClassEndpoints.Map(api);
        CohortEndpoints.Map(api);
        StudentEndpoints.Map(api);
        LeavingEndpoints.Map(api);
        LimitEndpoints.Map(api);
        RosterEndpoints.Map(api);
        RosterExport.Map(api);
        EarlierImportsEndpoints.Map(api);
        TermEndpoints.Map(api);
        AssignmentEndpoints.Map(api);
        CoverageEndpoints.Map(api);
        SafetyEndpoints.Map(api);
        LessonChangeEndpoints.Map(api);
        PlanEndpoints.Map(api);
        RemedyEndpoints.Map(api);
        CalendarLinkEndpoints.Map(api);
        CalendarEndpoints.Map(api);
        ShortStayEndpoint.Map(api);
        EffortEndpoint.Map(api);
        YearEndpoint.Map(api);
        NextSashEndpoint.Map(api);
        LessonEndpoints.Map(api);
        ArrangementEndpoints.Map(api);
        JoiningTonight.Map(api);
        ReTeachEndpoint.Map(api);
        FloorEndpoint.Map(api);
        RegisterEndpoints.Map(api);
        ProgressEndpoints.Map(api);
        CorrectionsEndpoint.Map(api);
        HomePracticeEndpoints.Map(api);
        PracticeLogEndpoint.Map(api);
        PatternsEndpoint.Map(api);
        LookBackEndpoint.Map(api);
        ProgressTables.Map(api);
        TakenOverEndpoints.Map(api);
        PersonFileEndpoint.Map(api);
        FormComparisonEndpoint.Map(api);
        MovingInEndpoint.Map(api);
        TodayEndpoint.Map(api);
        LeftToDoEndpoint.Map(api);

        // Without this, an unknown address under /api would be answered with the page.
        app.MapFallback("/api/{**rest}", () => Refusals.NotFound("This address"))
            .AllowAnonymous()
            .ExcludeFromDescription();
    }
}
