namespace Zeitplan.Core.Lessons;

/// <summary>What a stretch of a lesson is for (domain.md 4.4).</summary>
public enum BlockKind
{
    WarmUp,
    LeadIn,
    New,
    OwnPractice,
    Review,
    ReTeach,
    Watch,
    Partner,

    /// <summary>All go through what they share, each to where it knows.</summary>
    Together,
    RunThrough,

    /// <summary>Adapted groups sit for a while.</summary>
    Rest,
    Talk,
    Test,
    Settle,

    /// <summary>A teacher's look at a cohort that practises by itself.</summary>
    Visit,
}
