namespace Zeitplan.Core.People;

/// <summary>What somebody may do in Zeitplan.</summary>
public enum StaffRole
{
    Assistant,
    Instructor,
    Head,
}

/// <summary>A person who teaches: the head, an instructor, an assistant.</summary>
public sealed class StaffMember
{
    private StaffMember() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public StaffRole Role { get; private set; }

    public static StaffMember Create(Guid id, string name, StaffRole role) =>
        new()
        {
            Id = id,
            Name = name.Trim(),
            Role = role,
        };
}
