using System.Text.Json;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Tests.Exchange;

public class SoundInputTests
{
    public sealed record Sent(
        string Words,
        IReadOnlyList<Side> Sides,
        IReadOnlyList<string> Cues,
        IReadOnlyList<Side?> Columns,
        DateOnly? Date,
        decimal Minutes,
        IReadOnlyDictionary<string, string> Choices
    )
    {
        [WholeFile]
        public string File { get; init; } = "";

        public string Worked => Words.Length < 0 ? "" : throw new InvalidOperationException("Worked out, not sent.");
    }

    private static readonly Sent Sound = new(
        "the elbows stay low\nand heavy 🦩",
        [Side.Left, Side.Right],
        ["float"],
        [null, Side.Left],
        new(2026, 11, 24),
        6.5m,
        new Dictionary<string, string> { ["a"] = "b" }
    );

    public static TheoryData<string, Sent> Unsound =>
        new()
        {
            { "words", Sound with { Words = "the elbows\0stay low" } },
            { "words", Sound with { Words = "half a heron: \ud83e" } },
            { "words", Sound with { Words = "\udda9 the other half" } },
            { "words", Sound with { Words = new string('a', SoundInput.LongestText + 1) } },
            { "sides[1]", Sound with { Sides = [Side.Left, (Side)3] } },
            { "sides", Sound with { Sides = [.. Enumerable.Repeat(Side.Left, SoundInput.MostItems + 1)] } },
            { "cues[1]", Sound with { Cues = ["float", null!] } },
            { "columns[1]", Sound with { Columns = [null, (Side)99] } },
            { "date", Sound with { Date = DateOnly.MinValue } },
            { "date", Sound with { Date = DateOnly.MaxValue } },
            { "minutes", Sound with { Minutes = decimal.MaxValue } },
            { "choices.a", Sound with { Choices = new Dictionary<string, string> { ["a"] = "\u0007" } } },
        };

    [Fact]
    public void What_a_school_would_send_passes() =>
        Assert.Empty(SoundInput.Check(Sound with { File = new string('a', SoundInput.LongestText + 1) }));

    [Theory]
    [MemberData(nameof(Unsound))]
    public void What_nothing_in_a_school_can_mean_is_named_at_its_place(string place, Sent sent) =>
        Assert.Equal([place], SoundInput.Check(sent).Select(problem => problem.Field));

    [Fact]
    public void A_list_of_problems_ends_where_nobody_reads_on() =>
        Assert.Equal(
            SoundInput.MostProblems,
            SoundInput.Check(Sound with { Cues = [.. Enumerable.Repeat("\0", 500)] }).Count
        );

    [Theory]
    [InlineData("\"left, right\"")]
    [InlineData("\"Left\"")]
    [InlineData("\"both\"")]
    [InlineData("\"\"")]
    [InlineData("1")]
    [InlineData("null")]
    public void A_word_of_an_enumeration_is_one_word_exactly_as_it_is_written(string json)
    {
        foreach (var options in new[] { LibraryJson.Strict, LibraryJson.Stored })
        {
            Assert.Throws<JsonException>(() => JsonSerializer.Deserialize<Side>(json, options));
        }
    }

    [Fact]
    public void Every_word_of_an_enumeration_reads_back_also_as_the_name_of_a_property()
    {
        var all = Enum.GetValues<Side>().ToDictionary(side => side);
        var json = JsonSerializer.Serialize(all, LibraryJson.Stored);
        Assert.Equal("""{"symmetric":"symmetric","left":"left","right":"right"}""", json);
        Assert.Equal(all, JsonSerializer.Deserialize<Dictionary<Side, Side>>(json, LibraryJson.Stored));
    }
}
