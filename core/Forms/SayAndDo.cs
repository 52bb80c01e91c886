namespace Zeitplan.Core.Forms;

/// <summary>One line of a cue sheet: what the teacher says and, standing where this school's teachers stand, does
/// (domain.md 4.1).</summary>
/// <param name="At">The place of the position in its form, from 0.</param>
/// <param name="Count">From 1; 0 is the link into the position.</param>
/// <param name="Students">Where the students face when the line is done.</param>
/// <param name="Teacher">Where the teacher then faces, in the same hall.</param>
public sealed record CueLine(int At, int Count, string Say, string Do, Facing Students, Facing Teacher);

/// <summary>The cues of a form with both columns. The students' sides are always said; what the teacher does depends on
/// where they stand.</summary>
public static class SayAndDo
{
    public static IReadOnlyList<CueLine> Of(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        IReadOnlyList<Link> links,
        Demonstration stands
    )
    {
        List<CueLine> lines = [];
        var before = Facing.FromDegrees(0);
        foreach (var (at, position) in positions.Index())
        {
            var posture = postures[position.PostureId];
            if (
                at > 0
                && links.Select(link => link.For(positions[at - 1], position)).FirstOrDefault(text => text is not null)
                    is { Cues.Count: > 0 } link
            )
            {
                lines.Add(Line(at, 0, string.Join("; ", link.Cues), before, stands));
            }

            for (var count = 0; count < posture.Counts.Count; count++)
            {
                lines.Add(
                    Line(
                        at,
                        count + 1,
                        posture.On(position.Side, posture.Counts[count].Cue),
                        count == posture.Counts.Count - 1 ? position.Facing : before,
                        stands
                    )
                );
            }

            before = position.Facing;
        }

        return lines;
    }

    private static CueLine Line(int at, int count, string say, Facing students, Demonstration stands) =>
        new(
            at,
            count,
            say,
            stands == Demonstration.FacingMirrored ? Mirror.Of(say) : say,
            students,
            Teacher(students, stands)
        );

    /// <summary>With the back to the class the teacher faces as they do; unmirrored, the other way round; mirrored, as
    /// their picture in a mirror on the front wall.</summary>
    private static Facing Teacher(Facing students, Demonstration stands) =>
        stands switch
        {
            Demonstration.FacingMirrored => Facing.FromDegrees(180 - students.Degrees),
            Demonstration.FacingUnmirrored => students.Turn(180),
            _ => students,
        };
}
