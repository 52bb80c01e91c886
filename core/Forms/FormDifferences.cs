namespace Zeitplan.Core.Forms;

/// <summary>What stands differently in two versions of a form, in sentences: shown to whoever saved second.</summary>
public static class FormDifferences
{
    public static IReadOnlyList<string> Between(
        FormText kept,
        FormText offered,
        IReadOnlyDictionary<Guid, Posture> postures,
        Conventions ways
    )
    {
        List<string> differences = [];
        if (kept.Name != offered.Name)
        {
            differences.Add($"The form is called {kept.Name}; you wrote {offered.Name}.");
        }

        differences.AddRange(
            from section in kept.Sections
            let other = offered.Sections.FirstOrDefault(s => s.Id == section.Id)
            where other?.Name != section.Name
            select $"A section is called {section.Name}; you wrote {other?.Name ?? "nothing"}."
        );

        var places = offered.Positions.Index().ToDictionary(place => place.Item.Id);
        foreach (var (at, position) in kept.Positions.Index())
        {
            var name = postures.TryGetValue(position.PostureId, out var posture)
                ? posture.NameOn(position.Side)
                : "A position";
            if (!places.TryGetValue(position.Id, out var offer))
            {
                differences.Add($"{name} is in the form; yours leaves it out.");
            }
            else if (offer.Item != position)
            {
                differences.Add(
                    $"{name} now ends at {ways.Say(position.Facing)} after a turn of {position.Turn}°; yours at {ways.Say(offer.Item.Facing)} after {offer.Item.Turn}°{(offer.Item.Side == position.Side ? "" : ", on the other side")}{(offer.Item.WayIn == position.WayIn ? "" : ", with another way in")}{(offer.Item.Note == position.Note ? "" : ", with another note")}."
                );
            }
            else if (offer.Index != at)
            {
                differences.Add($"{name} stands at place {at + 1}; you put it at {offer.Index + 1}.");
            }
        }

        return differences;
    }
}
