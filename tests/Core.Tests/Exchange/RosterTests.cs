using FsCheck.Xunit;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Exchange;

public sealed class RosterTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly RosterField[] Written =
    [
        .. Enum.GetValues<RosterField>().Where(field => field != RosterField.Knows),
    ];
    private static readonly string[] Aims = ["health", "the art", "partner work"];
    private static readonly SashLevel Ivory = SashLevel.Create(
        Guid.NewGuid(),
        1,
        new("Ivory", "#D9CCA6", false, new())
    );
    private static readonly SashLevel Fern = SashLevel.Create(Guid.NewGuid(), 2, new("Fern", "#6E8C4A", true, new()));
    private static readonly Guid Evening = Guid.NewGuid();
    private static readonly Guid Morning = Guid.NewGuid();
    private static readonly Cohort IvoryCohort = Make(Evening, "Ivory", Ivory, Half.None);
    private static readonly Cohort NewerCohort = Make(Evening, "Fern, newer", Fern, Half.Newer);
    private static readonly Cohort SeniorCohort = Make(Evening, "Fern, senior", Fern, Half.Senior);
    private static readonly Cohort Chair = Make(Morning, "Chair group", null, Half.None);
    private static readonly Student Filippa = Student.Create(
        Guid.NewGuid(),
        new("Filippa", "Strand", Fern.Id, Half.Newer, [NewerCohort.Id], new(2026, 4, 1))
    );

    [Fact]
    public void Headers_are_recognised_however_they_are_written() =>
        Assert.Equal(
            [
                RosterField.FamilyName,
                RosterField.GivenName,
                RosterField.Sash,
                null,
                RosterField.Joined,
                RosterField.ContactPhone,
            ],
            Fields(["Surname", "FIRST NAME", "Sash ", "shoe size", "Member since", "Emergency-phone"])
        );

    private static readonly Section First = new(Guid.NewGuid(), "Section one");
    private static readonly Section Second = new(Guid.NewGuid(), "Section two");
    private static readonly Guid Raise = Guid.NewGuid();
    private static readonly Guid Press = Guid.NewGuid();
    private static readonly Form Lantern = Form.Create(
        Guid.NewGuid(),
        new(
            "Lantern Form",
            [First, Second],
            [
                new(Guid.NewGuid(), First.Id, Raise, Side.Symmetric, 0, default),
                new(Guid.NewGuid(), Second.Id, Press, Side.Right, 0, default),
                new(Guid.NewGuid(), Second.Id, Press, Side.Left, 0, default),
            ]
        )
    );

    [Fact]
    public void Since_is_the_day_of_the_level_beside_a_day_of_joining_and_of_joining_alone()
    {
        Assert.Equal(
            [RosterField.FullName, RosterField.SashSince, RosterField.Joined],
            Fields(["Name", "Since", "Joined"])
        );
        Assert.Equal([RosterField.FullName, RosterField.Joined], Fields(["Name", "Since"]));
        Assert.Equal(
            [RosterField.FullName, RosterField.ContactPhone, RosterField.HandsOn],
            Fields(["Name", "Telephone", "Hands-on"])
        );
    }

    [Fact]
    public void Headers_are_found_below_titles_or_where_somebody_points()
    {
        RosterSheet sheet = new([
            new(1, ["Heron Quay Tai Chi"]),
            new(3, ["Everybody, by name", "", "autumn"]),
            new(5, ["Name", "Sash"]),
            new(6, ["Orla Vane", "Ivory"]),
        ]);
        Assert.Equal(
            (5, "Orla Vane"),
            (sheet.Below(new(), []).HeaderLine, sheet.Below(new(), []).Lines.Single().Cells[0])
        );
        Assert.Equal("Everybody, by name", sheet.Below(new() { HeaderLine = 3 }, []).Headers[0]);
    }

    [Fact]
    public void A_word_is_explained_once_for_every_line_and_from_then_on()
    {
        string[][] lines =
        [
            ["Orla Vane", "Elfenbein"],
            ["Adaeze Obi", "ELFENBEIN"],
            ["Imke Rademaker", "Farn"],
        ];
        var before = Read(["Name", "Gürtel"], lines);
        Assert.Equal([RosterField.FullName, null], before.Columns.Select(column => column.Field));
        RosterAnswers answers = new()
        {
            Words = [new(null, "gurtel", "Sash"), new(RosterField.Sash, "elfenbein", $"{Ivory.Id}")],
        };
        var after = ReadAs(answers, ["Name", "Gürtel"], lines);
        var asked = Assert.Single(after.Unknown);
        Assert.Equal((RosterField.Sash, "Farn", 1), (asked.Field, asked.Word, asked.Lines));
        Assert.Equal(["Ivory", "Fern"], asked.Choices.Select(choice => choice.Name));
        Assert.Equal([RosterFate.Added, RosterFate.Added, RosterFate.Refused], after.Items.Select(item => item.Fate));
        Assert.Empty(after.Entries);
        Assert.Equal(
            3,
            ReadAs(
                answers with
                {
                    Words = [.. answers.Words, new(RosterField.Sash, "farn", asked.Choices[1].Meaning)],
                },
                ["Name", "Gürtel"],
                lines
            ).Entries.Count
        );
    }

    [Theory]
    [InlineData(null, "3/4/2026", "5/6/2026", true)]
    [InlineData(null, "3/4/2026", "25/6/2026", false)]
    [InlineData(null, "3/3/2026", "2026-06-05", false)]
    [InlineData(true, "3/4/2026", "5/6/2026", false)]
    public void Day_and_month_are_told_apart_by_the_other_dates_or_asked(
        bool? said,
        string one,
        string other,
        bool asks
    )
    {
        var import = ReadAs(
            new() { DayFirst = said },
            ["Name", "Joined", "Level since"],
            ["Orla Vane", one, ""],
            ["Adaeze Obi", "", other]
        );
        Assert.Equal(asks, import.AsksDayFirst);
        Assert.Equal(
            asks,
            import.Problems.Any(problem => problem.Message.Contains("both ways", StringComparison.Ordinal))
        );
        DateOnly? expected = asks ? null : new DateOnly(2026, one[2] == '3' ? 3 : 4, 3);
        Assert.Equal(expected, import.Entries is [var first, ..] ? first.Text.Joined : null);
    }

    [Fact]
    public void A_bad_line_can_be_left_out_and_says_why_it_was()
    {
        string[][] lines =
        [
            ["Orla Vane", "Ivory"],
            ["Adaeze Obi", "Purple"],
            ["", "Ivory"],
        ];
        Assert.Empty(Read(["Name", "Sash"], lines).Entries);
        var import = ReadAs(new() { LeftOut = [3, 4] }, ["Name", "Sash"], lines);
        Assert.Empty(import.Problems);
        Assert.Empty(import.Unknown);
        Assert.Equal("Orla", Assert.Single(import.Entries).Text.GivenName);
        Assert.Equal(
            [RosterFate.Added, RosterFate.LeftOut, RosterFate.LeftOut],
            import.Items.Select(item => item.Fate)
        );
        Assert.Contains("Purple", Assert.Single(import.Items[1].Changes), StringComparison.Ordinal);
    }

    [Fact]
    public void Somebody_of_a_name_that_is_known_is_asked_about_before_there_are_two()
    {
        string[] headers = ["Name", "Sash", "Joined"];
        string[] line = ["Filippa Strand", "Ivory", "2026-09-01"];
        var import = Read(headers, line);
        Assert.Equal(RosterFate.Asked, Assert.Single(import.Items).Fate);
        Assert.Contains("since 2026-04-01", Assert.Single(import.Problems).Message, StringComparison.Ordinal);
        Assert.Equal(Filippa.Id, Assert.Single(ReadAs(new() { SamePerson = [2] }, headers, line).Entries).Existing?.Id);
        Assert.Null(Assert.Single(ReadAs(new() { AnotherPerson = [2] }, headers, line).Entries).Existing);
    }

    [Fact]
    public void Columns_called_by_forms_say_what_people_knew_when_they_came()
    {
        var import = Read(
            ["Name", "Lantern Form", "Lantern Form, section two", "Partner work"],
            ["Orla Vane", "yes", "no", "yes"],
            ["Adaeze Obi", "", "shown", "no"],
            ["Imke Rademaker", "", "", ""]
        );
        Assert.Empty(import.Problems);
        Assert.Equal(
            [(Raise, Side.Symmetric, Stage.Alone), (Press, Side.Right, Stage.NotMet), (Press, Side.Left, Stage.NotMet)],
            import.Entries[0].Knows.Select(known => (known.Of.PostureId, known.Of.Side, known.Stage))
        );
        Assert.Equal([Stage.Shown, Stage.Shown], import.Entries[1].Knows.Select(known => known.Stage));
        Assert.Empty(import.Entries[2].Knows);
        Assert.Equal(
            [
                [Consent.PartnerWork],
                [],
                [],
            ],
            import.Entries.Select(entry => entry.Text.Details.Consents.ToArray())
        );
        Assert.Equal(
            (RosterField.Knows, "vielleicht"),
            (
                Read(["Name", "Lantern Form"], ["Orla Vane", "vielleicht"]).Unknown[0].Field,
                Read(["Name", "Lantern Form"], ["Orla Vane", "vielleicht"]).Unknown[0].Word
            )
        );
    }

    [Fact]
    public void A_messy_sheet_is_understood_line_by_line()
    {
        var import = Read(
            ["Name", "Level", "Class", "Group", "Start"],
            ["Núñez, Marisol", "fern (senior)", "tuesday evening", "", "3/9/2026"],
            ["  filippa   STRAND ", "Fern newer", "Tuesday evening", "", "01.04.2026"],
            ["Orla Vane", "Ivory", "", "chair group", "25.12.2025"],
            ["Orla Vane", "Ivory", "", "chair group", "25.12.2025"]
        );
        Assert.Empty(import.Problems);
        Assert.Equal(
            [RosterFate.Added, RosterFate.Changed, RosterFate.Added, RosterFate.Twice],
            import.Items.Select(item => item.Fate)
        );
        Assert.Equal(
            [
                ("Marisol", "Núñez", Half.Senior, SeniorCohort.Id, new DateOnly(2026, 9, 3)),
                ("Orla", "Vane", Half.None, Chair.Id, new DateOnly(2025, 12, 25)),
            ],
            import
                .Entries.Where(entry => entry.Existing is null)
                .Select(entry =>
                    (
                        entry.Text.GivenName,
                        entry.Text.FamilyName,
                        entry.Text.Half,
                        entry.Text.CohortIds[0],
                        entry.Text.Joined
                    )
                )
        );
        Assert.Equal(
            ["given name: filippa instead of Filippa", "family name: STRAND instead of Strand"],
            import.Items[1].Changes
        );
    }

    [Fact]
    public void Every_problem_stands_at_its_line_and_column_and_nothing_is_kept_while_there_is_one()
    {
        var import = Read(
            ["Given name", "Sash", "Cohort", "Joined", "Mode"],
            ["Ada", "Purple", "Ivory", "2026-01-01", ""],
            ["", "Ivory", "Ivory", "2026-01-01", ""],
            ["Bo", "Ivory", "Nowhere", "31.02.2026", "floating"],
            ["Cy", "Ivory", "Ivory", "2031-01-01", ""],
            ["Di", "Ivory", "Ivory", "2026-01-01", "", "one too many"],
            ["Ed", "Ivory", "Ivory", "2026-01-01", "standing"],
            ["Ed", "Fern", "Ivory", "2026-01-01", "seated"]
        );
        Assert.Equal(
            [
                (2, "Sash"),
                (3, "Given name"),
                (4, "Cohort"),
                (4, "Joined"),
                (4, "Mode"),
                (5, "Joined"),
                (6, ""),
                (8, "Given name"),
            ],
            import.Problems.Select(problem => (problem.Line, problem.Column)).Order()
        );
        Assert.Empty(import.Entries);
        Assert.Contains(
            "Ivory, Fern",
            import.Problems.Single(problem => problem.Line == 2).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_class_without_a_cohort_for_the_sash_asks_which()
    {
        var import = Read(["Name", "Sash", "Class"], ["Orla Vane", "Ivory", "Tuesday morning, seated"]);
        Assert.Contains("Name the cohort", Assert.Single(import.Problems).Message, StringComparison.Ordinal);
        Assert.Contains(
            "Say which column holds the name",
            Assert.Single(Read(["Sash"], ["Ivory"]).Problems).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Dates_are_read_by_the_column_they_stand_in()
    {
        DateOnly[] Joined(params string[] dates) =>
            [
                .. Read(["Name", "Joined"], [.. dates.Select((date, at) => new[] { $"Person {at}", date })])
                    .Entries.Select(entry => entry.Text.Joined),
            ];
        Assert.Equal([new(2026, 5, 4), new(2026, 5, 13)], Joined("4/5/2026", "13/5/2026"));
        Assert.Equal([new(2026, 4, 5), new(2026, 5, 13)], Joined("4/5/2026", "5/13/2026"));
        Assert.Equal([new(2026, 5, 4), new(2024, 1, 1)], Joined("2026-05-04 00:00:00", "45292"));
    }

    [Property]
    public void The_roster_written_out_and_read_again_changes_nothing(byte sash, bool senior, byte aim, byte mode)
    {
        var level = sash % 2 == 0 ? Ivory : Fern;
        var half =
            level == Ivory ? Half.None
            : senior ? Half.Senior
            : Half.Newer;
        var student = Student.Create(
            Guid.NewGuid(),
            new(
                "Orla",
                "Vane",
                level.Id,
                half,
                [
                    level == Ivory ? IvoryCohort.Id
                    : senior ? SeniorCohort.Id
                    : NewerCohort.Id,
                ],
                new(2026, 2, 3)
            )
            {
                Details = new()
                {
                    Aim = (Aim)(aim % 3),
                    Mode = Mode.Named[mode % 5],
                    ContactName = "The Vane household",
                    ContactPhone = "+44 1632 960107",
                },
            },
            new(2026, 3, 4)
        );
        var table = new RosterTable(
            [.. Written.Select(RosterColumns.Header)],
            [
                new(
                    2,
                    [
                        .. Written.Select(field =>
                            field switch
                            {
                                RosterField.FullName => "Orla Vane",
                                RosterField.GivenName => "Orla",
                                RosterField.FamilyName => "Vane",
                                RosterField.Sash => level.Name,
                                RosterField.Half => half == Half.None ? "" : $"{half}",
                                RosterField.Class => "Tuesday evening",
                                RosterField.Cohort => level == Ivory ? "Ivory"
                                : senior ? "Fern, senior"
                                : "Fern, newer",
                                RosterField.Joined => "2026-02-03",
                                RosterField.SashSince => "2026-03-04",
                                RosterField.Mode => Mode.Named[mode % 5].Name,
                                RosterField.Aim => Aims[aim % 3],
                                RosterField.ContactName => "The Vane household",
                                RosterField.ContactPhone => "+44 1632 960107",
                                _ => "",
                            }
                        ),
                    ]
                ),
            ]
        );
        var import = RosterImport.Of(table, new(), School(student));
        Assert.Empty(import.Problems);
        Assert.Equal(RosterFate.Same, Assert.Single(import.Items).Fate);
        Assert.Throws<OperationCanceledException>(() =>
            RosterImport.Of(table, new(), School(student), new(canceled: true))
        );
    }

    private static RosterImport Read(string[] headers, params string[][] lines) => ReadAs(new(), headers, lines);

    private static RosterImport ReadAs(RosterAnswers answers, string[] headers, params string[][] lines) =>
        RosterImport.Of(
            new(headers, [.. lines.Select((cells, at) => new RosterLine(at + 2, cells))]),
            answers,
            School(Filippa)
        );

    private static IEnumerable<RosterField?> Fields(string[] headers, params RosterWord[] words) =>
        RosterColumns.Guess(headers, words, [Lantern]).Select(column => column.Field);

    private static RosterSchool School(Student student) =>
        new(
            [Ivory, Fern],
            [IvoryCohort, NewerCohort, SeniorCohort, Chair],
            new Dictionary<Guid, string> { [Evening] = "Tuesday evening", [Morning] = "Tuesday morning, seated" },
            [student],
            Today
        )
        {
            Forms = [Lantern],
        };

    private static Cohort Make(Guid schoolClass, string name, SashLevel? sash, Half half) =>
        Cohort.Create(
            Guid.NewGuid(),
            schoolClass,
            new(name, 0, sash?.Id, half, sash is null ? Mode.Seated : Mode.Standing, "#D9CCA6", false, false)
        );
}
