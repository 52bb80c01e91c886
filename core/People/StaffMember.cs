namespace Zeitplan.Core.People;

/// <summary>What somebody may do in Zeitplan.</summary>
public enum StaffRole
{
    Assistant,
    Instructor,
    Head,
}

/// <summary>A person who teaches: the head, an instructor, an assistant. The same person may learn here, too.</summary>
public sealed class StaffMember
{
    private StaffMember() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public StaffRole Role { get; private set; }

    /// <summary>The student this person is where they learn themselves; null where they only teach.</summary>
    public Guid? StudentId { get; private set; }

    /// <summary>Since when this person has no sign-in any more. What they taught and saw keeps their name.</summary>
    public DateOnly? Closed { get; private set; }

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    /// <summary>What has been checked is who this is from now on.</summary>
    public void Rewrite(StaffText text) => (Name, Role, StudentId) = (text.Name.Trim(), text.Role, text.StudentId);

    public void Close(DateOnly today) => Closed ??= today;

    public void Reopen() => Closed = null;

    public static StaffMember Create(Guid id, StaffText text)
    {
        var member = new StaffMember { Id = id };
        member.Rewrite(text);
        return member;
    }
}

/// <summary>What a head writes about somebody who teaches, before it has been checked.</summary>
/// <param name="StudentId">The student this person is where they learn themselves.</param>
public sealed record StaffText(string Name, StaffRole Role, Guid? StudentId = null)
{
    /// <param name="takenStudents">The students whom other members of staff are.</param>
    public IEnumerable<Problem> Check(IReadOnlyCollection<Guid> takenStudents)
    {
        foreach (var problem in Problem.WithName(Name, "name"))
        {
            yield return problem;
        }

        if (StudentId is { } student && takenStudents.Contains(student))
        {
            yield return new("studentId", "Somebody else who teaches is this student already.");
        }
    }
}
