namespace Zeitplan.Core.Forms;

/// <summary>An ordered sequence of positions in sections, with a zero direction of its own.</summary>
public sealed class Form
{
    private Form() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>All that is written about it.</summary>
    public FormText Text { get; private set; } = new("", [], []);
    public IReadOnlyList<Section> Sections => Text.Sections;
    public IReadOnlyList<Position> Positions => Text.Positions;

    /// <summary>What follows from it and its postures.</summary>
    public FormOutline Outline { get; private set; } = new([]);

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    /// <summary>Works out anew what follows from the text.</summary>
    public void OutlineAnew(IReadOnlyDictionary<Guid, Posture> postures, Conventions ways) =>
        Outline = FormOutline.Of(Text, postures, ways);

    public static Form Create(Guid id, FormText text)
    {
        var form = new Form { Id = id };
        form.Rewrite(text);
        return form;
    }

    public void Rewrite(FormText text)
    {
        Text = text with
        {
            Name = text.Name.Trim(),
            Sections = [.. text.Sections.Select(section => section with { Name = section.Name.Trim() })],
        };
        Name = Text.Name;
    }

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

/// <summary>One place in a form. <paramref name="Turn"/> is what the body turns to get here, degrees clockwise;
/// <paramref name="Facing"/> is where it then points.</summary>
/// <param name="CompoundId">The compound posture this position is a part of here.</param>
/// <param name="WayIn">Step notation of the link: what the feet do before the first count. Each side written as it is
/// done here.</param>
/// <param name="ParentId">The position of the parent form this one is taken from, in a derived form.</param>
/// <param name="IsTransition">Unnumbered material between two positions.</param>
public sealed record Position(
    Guid Id,
    Guid SectionId,
    Guid PostureId,
    Side Side,
    int Turn,
    Facing Facing,
    int Repeats = 1,
    string Note = "",
    Guid? CompoundId = null,
    string WayIn = "",
    Guid? ParentId = null,
    bool IsTransition = false,
    string WayInBody = ""
);

/// <summary>Consecutive positions taught as one assignment, with an entry stance and a short close of its own so that
/// it can be practised alone.</summary>
/// <param name="Entry">Step notation from feet together into the stand the first position starts from.</param>
/// <param name="Close">Step notation that brings the feet together again.</param>
public sealed record Segment(Guid Id, string Name, Guid FromId, Guid ToId, string Entry = "", string Close = "");

/// <summary>Everything a head writes about a form, before it has been checked.</summary>
public sealed record FormText(string Name, IReadOnlyList<Section> Sections, IReadOnlyList<Position> Positions)
{
    /// <summary>The form this one is derived from.</summary>
    public Guid? ParentId { get; init; }
    public IReadOnlyList<Segment> Segments { get; init; } = [];

    /// <summary>Findings the school keeps as its way.</summary>
    public IReadOnlyList<Accepted> Accepted { get; init; } = [];

    /// <summary>What cannot be kept. Disagreements inside a form that can be kept, such as a facing that does not add
    /// up, are findings: see <see cref="FormCheck"/>.</summary>
    public IEnumerable<Problem> Check(IReadOnlyDictionary<Guid, Posture> postures)
    {
        foreach (
            var problem in Problem
                .WithName(Name, "name")
                .Concat(Sections.SelectMany((section, at) => Problem.WithName(section.Name, $"sections[{at}].name")))
        )
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

        foreach (
            var problem in Positions
                .Index()
                .SelectMany(place => CheckPosition(place.Index, place.Item, postures))
                .Concat(CheckSegments())
        )
        {
            yield return problem;
        }
    }

    private IEnumerable<Problem> CheckPosition(int at, Position position, IReadOnlyDictionary<Guid, Posture> postures)
    {
        var path = $"positions[{at}]";
        if (!postures.TryGetValue(position.PostureId, out var posture))
        {
            yield return new($"{path}.postureId", "The school has no such posture.");
        }
        else if (posture.Text.Parts.Count > 0)
        {
            yield return new(
                $"{path}.postureId",
                $"{posture.Name} is a compound posture: put its parts into the form."
            );
        }
        else if (!posture.HasSide(position.Side))
        {
            yield return new(
                $"{path}.side",
                posture.WrittenSide == Side.Symmetric
                    ? $"{posture.Name} has no left or right."
                    : $"Say which side {posture.Name} is done on."
            );
        }

        if (position.CompoundId is { } compound && !postures.ContainsKey(compound))
        {
            yield return new($"{path}.compoundId", "The school has no such compound posture.");
        }

        var section = Sections.Index().FirstOrDefault(s => s.Item.Id == position.SectionId, (-1, null!)).Index;
        if (section < 0)
        {
            yield return new($"{path}.sectionId", "The form has no such section.");
        }
        else if (
            at > 0
            && Sections.Index().FirstOrDefault(s => s.Item.Id == Positions[at - 1].SectionId, (-1, null!)).Index
                > section
        )
        {
            yield return new(
                $"{path}.sectionId",
                "The positions of a section stand together, in the order of the sections."
            );
        }

        if (position.Turn is < -360 or > 360)
        {
            yield return new($"{path}.turn", "A turn is between -360 and 360 degrees.");
        }

        if (position.Repeats is < 1 or > 20)
        {
            yield return new($"{path}.repeats", "A posture repeats between 1 and 20 times.");
        }

        if (position.Note.Length > Problem.LongestText)
        {
            yield return new($"{path}.note", $"Keep the note to {Problem.LongestText} characters.");
        }

        foreach (
            var problem in PostureText
                .CheckSteps(position.WayIn, $"{path}.wayIn")
                .Concat(PostureText.CheckBody(position.WayInBody, $"{path}.wayInBody"))
        )
        {
            yield return problem;
        }
    }

    /// <summary>A form is derived from another, not from itself by a detour.</summary>
    /// <param name="parents">The parent of every form of the school as it would be.</param>
    public static IEnumerable<Problem> CheckParent(Guid id, Guid? parentId, IReadOnlyDictionary<Guid, Guid?> parents)
    {
        if (parentId is { } parent && !parents.ContainsKey(parent))
        {
            return [new("parentId", "The school has no such form to derive from.")];
        }

        HashSet<Guid> seen = [id];
        for (var at = parentId; at is { } here; at = parents.GetValueOrDefault(here))
        {
            if (!seen.Add(here))
            {
                return [new("parentId", "These forms are derived from each other in a circle.")];
            }
        }

        return [];
    }

    private IEnumerable<Problem> CheckSegments()
    {
        var places = Positions
            .Index()
            .GroupBy(place => place.Item.Id)
            .ToDictionary(same => same.Key, same => same.First().Index);
        foreach (var (at, segment) in Segments.Index())
        {
            if (
                !places.TryGetValue(segment.FromId, out var from)
                || !places.TryGetValue(segment.ToId, out var to)
                || from > to
            )
            {
                yield return new(
                    $"segments[{at}]",
                    $"{segment.Name} starts or ends at a position the form does not have, or ends before it starts."
                );
            }

            foreach (
                var problem in Problem
                    .WithName(segment.Name, $"segments[{at}].name")
                    .Concat(PostureText.CheckSteps(segment.Entry, $"segments[{at}].entry"))
                    .Concat(PostureText.CheckSteps(segment.Close, $"segments[{at}].close"))
            )
            {
                yield return problem;
            }
        }
    }
}
