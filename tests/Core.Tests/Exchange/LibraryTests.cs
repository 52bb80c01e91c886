using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Tests.Forms;

namespace Zeitplan.Core.Tests.Exchange;

public sealed class LibraryTests
{
    private static readonly FormLibrary Nothing = FormLibrary.Of([], [], [], []);
    private static readonly byte[] File = JsonSerializer.SerializeToUtf8Bytes(Starter.Library, LibraryJson.Strict);

    [Fact]
    public void What_is_exported_reads_back_exactly()
    {
        var reading = LibraryReader.Read(File);
        Assert.Empty(reading.Problems);
        Assert.Equal(Encoding.UTF8.GetString(File), JsonSerializer.Serialize(reading.Library, LibraryJson.Strict));
        Assert.Equal(
            Encoding.UTF8.GetString(File),
            Encoding.UTF8.GetString(
                JsonSerializer.SerializeToUtf8Bytes(
                    LibraryReader.Read([.. Encoding.UTF8.Preamble, .. File]).Library,
                    LibraryJson.Strict
                )
            )
        );
    }

    [Fact]
    public void What_is_imported_into_an_empty_school_is_what_was_exported()
    {
        var result = LibraryImport.Of(File, Nothing).Apply(new Dictionary<Guid, ImportChoice>());
        var again = FormLibrary.Of(
            Starter.Library.Postures.Select(entry => result.Postures.Single(posture => posture.Id == entry.Id)),
            result.Links.Select(entry => Link.Create(entry.Id, entry.Text)),
            result.Principles.Select(entry => Principle.Create(entry.Id, entry.Text)),
            result.Forms.Select(entry => Form.Create(entry.Id, entry.Text))
        );
        Assert.Equal(Encoding.UTF8.GetString(File), JsonSerializer.Serialize(again, LibraryJson.Strict));
        var preview = LibraryImport.Of(File, Starter.Library).Preview;
        Assert.All(preview.Items, item => Assert.Equal(ImportFate.Same, item.Fate));
    }

    [Fact]
    public void The_published_schema_is_the_one_the_program_reads_by()
    {
        var published = System.IO.File.ReadAllText(Path.Combine(Repository(), "docs", "formats", "forms.schema.json"));
        Assert.Equal(
            LibraryJson.Schema().ToJsonString(new() { WriteIndented = true }).ReplaceLineEndings("\n"),
            published.TrimEnd().ReplaceLineEndings("\n")
        );
    }

    [Theory]
    [InlineData("{ \"format\": \"zeitplan-forms\", \"version\": 1,", 1, "")]
    [InlineData("[]", 1, "no form library")]
    [InlineData("{ \"format\": \"zeitplan-forms\",\n  \"version\": 7 }", 2, "version 7")]
    [InlineData(
        "{ \"format\": \"zeitplan-forms\", \"version\": 1,\n \"postures\": [], \"postures\": [] }",
        2,
        "stands twice"
    )]
    [InlineData(
        "{ \"format\": \"zeitplan-forms\", \"version\": 1,\n\n \"postures\": [ { \"id\": \"0199c000-0000-7000-8000-000000000000\", \"text\": { \"name\": \"Crane\", \"keyPoint\": \"one\", \"keyPoint\": \"two\" } } ] }",
        3,
        "stands twice"
    )]
    [InlineData(
        "{ \"format\": \"zeitplan-forms\", \"version\": 1,\n \"forms\": [ { \"id\": \"0199c000-0000-7000-8000-000000000000\", \"text\": { \"name\": \"F\", \"sections\": [], \"positions\": [ { \"id\": \"0199c000-0000-7000-8000-000000000001\", \"sectionId\": \"0199c000-0000-7000-8000-000000000001\", \"postureId\": \"0199c000-0000-7000-8000-000000000001\", \"side\": \"left\", \"turn\": 0, \"facing\": 720 } ] } } ] }",
        2,
        "0 to 359"
    )]
    [InlineData("{ \"format\": \"zeitplan-forms\", \"version\": 1, \"colour\": \"pine\" }", 1, "no such field")]
    public void A_bad_file_is_refused_whole_with_its_line_and_reason(string file, int line, string reason)
    {
        var reading = LibraryReader.Read(Encoding.UTF8.GetBytes(file));
        Assert.Null(reading.Library);
        var problem = Assert.Single(reading.Problems);
        Assert.Equal(line, problem.Line);
        Assert.Contains(reason, problem.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_file_that_is_too_large_or_nests_too_deeply_is_refused_unread()
    {
        Assert.Contains(
            "50 MB",
            Assert.Single(LibraryReader.Read(new byte[50 * 1024 * 1024]).Problems).Message,
            StringComparison.Ordinal
        );
        var bomb = Encoding.UTF8.GetBytes(
            "{ \"format\": \"zeitplan-forms\", \"version\": 1, \"postures\": "
                + new string('[', 100_000)
                + new string(']', 100_000)
                + "}"
        );
        Assert.Contains(
            "nests deeper",
            Assert.Single(LibraryReader.Read(bomb).Problems).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void What_a_form_names_must_be_there_and_the_place_is_said()
    {
        var file = Changed(library =>
            library["forms"]![0]!["text"]!["positions"]![3]!["postureId"] = "0199c000-0000-7000-8000-00000000dead"
        );
        var problem = Assert.Single(LibraryImport.Of(file, Nothing).Preview.Problems);
        Assert.Equal("The school has no such posture.", problem.Message);
        Assert.Contains(
            "0000dead",
            Encoding.UTF8.GetString(file).Split('\n')[problem.Line - 1],
            StringComparison.Ordinal
        );
        Assert.Equal('"', Encoding.UTF8.GetString(file).Split('\n')[problem.Line - 1][problem.Column - 1]);
    }

    [Fact]
    public void Forms_and_postures_that_come_from_each_other_in_a_circle_are_refused()
    {
        var forms = Changed(library =>
            library["forms"]![0]!["text"]!["parentId"] = library["forms"]![1]!["id"]!.GetValue<string>()
        );
        Assert.Contains(
            LibraryImport.Of(forms, Nothing).Preview.Problems,
            problem => problem.Message.Contains("in a circle", StringComparison.Ordinal)
        );
        var chop = Starter.Called("Turn and Chop");
        var snake = Starter.Called("White Snake Darts Its Tongue");
        var postures = Changed(library =>
            library["postures"]!.AsArray().Single(entry => entry!["id"]!.GetValue<Guid>() == chop.Id)!["text"]![
                "builtFrom"
            ] = new JsonObject { ["postureId"] = snake.Id }
        );
        Assert.Contains(
            LibraryImport.Of(postures, Nothing).Preview.Problems,
            problem => problem.Message.Contains("built from itself", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_step_that_cannot_be_read_is_found_where_it_stands()
    {
        var file = Changed(library => library["postures"]![2]!["text"]!["counts"]![0]!["feet"] = "L stap");
        var problem = Assert.Single(LibraryImport.Of(file, Nothing).Preview.Problems);
        Assert.StartsWith("Line 1, column 3:", problem.Message, StringComparison.Ordinal);
        Assert.Contains("stap", Encoding.UTF8.GetString(file).Split('\n')[problem.Line - 1], StringComparison.Ordinal);
    }

    [Fact]
    public void Only_the_first_mistakes_of_a_file_are_looked_for_and_nobody_looks_once_the_sender_has_left()
    {
        var file = Changed(library =>
        {
            foreach (var posture in library["postures"]!.AsArray())
            {
                posture!["text"]!["entry"] = string.Concat(Enumerable.Repeat("q;", 2000));
            }
        });
        Assert.Equal(SoundInput.MostProblems, LibraryImport.Of(file, Nothing).Preview.Problems.Count);
        Assert.Throws<OperationCanceledException>(() => LibraryImport.Of(file, Nothing, new(canceled: true)));
    }

    [Fact]
    public void What_would_change_and_what_clashes_is_said_before_anything_happens()
    {
        var changed = LibraryImport
            .Of(Changed(library => library["postures"]![0]!["text"]!["keyPoint"] = "something else"), Starter.Library)
            .Preview;
        var item = Assert.Single(changed.Items, one => one.Fate != ImportFate.Same);
        Assert.Equal((ImportFate.Changed, "keyPoint"), (item.Fate, Assert.Single(item.Differences)));

        var own = Starter.Library with
        {
            Postures =
            [
                .. Starter.Library.Postures.Where(entry => entry.Text.Name != "Opening"),
                new(Guid.CreateVersion7(), Starter.Called("Opening").Text),
            ],
            Forms = [],
            Links = [],
        };
        var import = LibraryImport.Of(File, own);
        var clash = Assert.Single(import.Preview.Items, one => one.Fate == ImportFate.Clash);
        Assert.Equal("Opening", clash.Name);

        var ours = import.Apply(new Dictionary<Guid, ImportChoice>());
        Assert.Equal(
            clash.OurId,
            ours.Forms.First(form => form.Text.Name == "Lantern Form").Text.Positions[0].PostureId
        );
        var theirs = import.Apply(new Dictionary<Guid, ImportChoice> { [clash.Id] = ImportChoice.Theirs });
        Assert.Equal("Opening (2)", theirs.Postures.Single(posture => posture.Id == clash.Id).Name);
    }

    [Fact]
    public void One_form_is_exported_with_all_it_is_made_of()
    {
        var part = Starter.Library.Only(Starter.Library.Forms.Single(form => form.Text.Name == "Lamp Form").Id)!;
        Assert.Empty(
            LibraryImport.Of(JsonSerializer.SerializeToUtf8Bytes(part, LibraryJson.Strict), Nothing).Preview.Problems
        );
        Assert.Null(Starter.Library.Only(Guid.CreateVersion7()));
    }

    [Fact]
    public void A_floor_map_is_a_picture_true_to_scale()
    {
        var walk = Core.Forms.Floor.FloorWalk.Of(Starter.Short.Positions, Starter.Postures, Conventions.Default);
        var svg = System.Xml.Linq.XDocument.Parse(
            FloorSvg.Of("Lamp & Form", walk, [.. Starter.Short.Positions.Select((_, at) => $"{at + 1}")], 0.26)
        );
        var ns = svg.Root!.Name.Namespace;
        Assert.Equal(32, svg.Root.Elements(ns + "path").Count(path => path.Attribute("transform") is not null));
        Assert.Equal("Lamp & Form", svg.Root.Element(ns + "title")!.Value);
        var need = Core.Forms.Floor.FloorNeed.Of(walk, 0.26).Reach;
        Assert.Contains(
            svg.Root.Elements(ns + "rect"),
            rect =>
                Math.Abs(
                    double.Parse(rect.Attribute("width")!.Value, System.Globalization.CultureInfo.InvariantCulture)
                        - (need.Width * 100)
                ) < 0.1
        );
    }

    private static byte[] Changed(Action<JsonNode> change)
    {
        var library = JsonNode.Parse(File)!;
        change(library);
        return Encoding.UTF8.GetBytes(library.ToJsonString(new() { WriteIndented = true }));
    }

    private static string Repository()
    {
        var folder = AppContext.BaseDirectory;
        while (!System.IO.File.Exists(Path.Combine(folder, "Zeitplan.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}
