namespace Zeitplan.Core.Forms;

/// <summary>An ordered sequence of positions in sections, with a zero direction of its own.</summary>
public sealed class Form
{
    private Form()
    {
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public IReadOnlyList<Section> Sections { get; private set; } = [];
    public IReadOnlyList<Position> Positions { get; private set; } = [];

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Form Create(Guid id, FormText text)
    {
        var form = new Form { Id = id };
        form.Rewrite(text);
        return form;
    }

    public void Rewrite(FormText text) =>
        (Name, Sections, Positions) = (text.Name.Trim(), [.. text.Sections.Select(section => section with { Name = section.Name.Trim() })], text.Positions);

    /// <summary>The place of a position in teaching order, from 0, or -1 when the form does not have it.</summary>
    public int IndexOf(Guid positionId)
    {
        for (var at = 0; at < Positions.Count; at++)
        {
            if (Positions[at].Id == positionId)
            {
                return at;
            }
        }

        return -1;
    }
}

/// <summary>A part of a form with a natural close.</summary>
public sealed record Section(Guid Id, string Name);

/// <summary>One place in a form. <paramref name="Turn"/> is what the body turns to get here, degrees clockwise; <paramref name="Facing"/> is where it then points.</summary>
/// <param name="Numbered">False for the parts of a compound posture that go under their first part's number.</param>
public sealed record Position(Guid Id, Guid SectionId, Guid PostureId, Side Side, int Turn, Facing Facing, int Repeats = 1, bool Numbered = true, string Note = "");

/// <summary>Everything a head writes about a form, before it has been checked.</summary>
public sealed record FormText(string Name, IReadOnlyList<Section> Sections, IReadOnlyList<Position> Positions)
{
    /// <summary>What cannot be kept. Disagreements inside a form that can be kept, such as a facing that does not add up, are findings: see <see cref="FacingCheck"/>.</summary>
    public IEnumerable<Problem> Check(IReadOnlyDictionary<Guid, Posture> postures)
    {
        foreach (var problem in Problem.WithName(Name, "name").Concat(Sections.SelectMany((section, at) => Problem.WithName(section.Name, $"sections[{at}].name"))))
        {
            yield return problem;
        }

        if (Sections.Count == 0)
        {
            yield return new("sections", "A form has at least one section.");
        }

        if (Positions.Select(position => position.Id).Distinct().Count() != Positions.Count)
        {
            yield return new("positions", "Two positions have the same identifier.");
        }

        foreach (var (at, position) in Positions.Index())
        {
            foreach (var problem in CheckPosition(at, position, postures))
            {
                yield return problem;
            }
        }
    }

    private IEnumerable<Problem> CheckPosition(int at, Position position, IReadOnlyDictionary<Guid, Posture> postures)
    {
        var path = $"positions[{at}]";
        if (!postures.TryGetValue(position.PostureId, out var posture))
        {
            yield return new($"{path}.postureId", "The school has no such posture.");
        }
        else if (!posture.HasSide(position.Side))
        {
            yield return new($"{path}.side", posture.WrittenSide == Side.Symmetric ? $"{posture.Name} has no left or right." : $"Say which side {posture.Name} is done on.");
        }

        var section = Sections.Index().FirstOrDefault(s => s.Item.Id == position.SectionId, (-1, null!)).Index;
        if (section < 0)
        {
            yield return new($"{path}.sectionId", "The form has no such section.");
        }
        else if (at > 0 && Sections.Index().FirstOrDefault(s => s.Item.Id == Positions[at - 1].SectionId, (-1, null!)).Index > section)
        {
            yield return new($"{path}.sectionId", "The positions of a section stand together, in the order of the sections.");
        }

        if (position.Turn is < -360 or > 360)
        {
            yield return new($"{path}.turn", "A turn is between -360 and 360 degrees.");
        }

        if (position.Repeats is < 1 or > 20)
        {
            yield return new($"{path}.repeats", "A posture repeats between 1 and 20 times.");
        }
    }
}
