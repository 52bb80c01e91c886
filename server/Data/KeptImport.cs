using Zeitplan.Core.People;

namespace Zeitplan.Server.Data;

/// <summary>A roster that was imported: what stood there before, so that it can be taken back as a whole.</summary>
public sealed class KeptImport
{
    private KeptImport() { }

    public Guid Id { get; private set; }
    public DateTimeOffset At { get; private set; }
    public Guid By { get; private set; }
    public string FileName { get; private set; } = "";
    public IReadOnlyList<KeptStudent> Entries { get; private set; } = [];

    /// <summary>What the file said people knew when they came.</summary>
    public IReadOnlyList<Guid> FactIds { get; private set; } = [];
    public bool TakenBack { get; private set; }

    public static KeptImport Create(
        Guid id,
        string fileName,
        IReadOnlyList<KeptStudent> entries,
        IReadOnlyList<Guid> factIds,
        Guid by,
        DateTimeOffset at
    ) =>
        new()
        {
            Id = id,
            FileName = fileName,
            Entries = entries,
            FactIds = factIds,
            By = by,
            At = at,
        };

    public void TakeBack() => TakenBack = true;

    /// <summary>Takes out what tells who somebody was.</summary>
    public void Forget(Guid studentId) => Entries = [.. Entries.Where(entry => entry.StudentId != studentId)];
}

/// <param name="Before">Null for somebody the import added.</param>
/// <param name="After">What the import made of them: whoever changed since is not taken back.</param>
public sealed record KeptStudent(Guid StudentId, StudentState? Before, StudentState After);
