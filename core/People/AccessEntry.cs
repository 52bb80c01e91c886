namespace Zeitplan.Core.People;

public enum AccessKind
{
    Read,
    Changed,
}

/// <summary>Somebody read or changed a student's limits: who, when, and on which page. Never edited.</summary>
public sealed record AccessEntry(Guid Id, DateTimeOffset At, Guid By, Guid StudentId, AccessKind Kind, string Where);
