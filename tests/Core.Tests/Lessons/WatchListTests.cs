using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Lessons;

public sealed class WatchListTests
{
    [Fact]
    public void The_watch_list_takes_who_went_longest_unseen_then_key_points_then_who_is_nearly_there()
    {
        var today = new DateOnly(2026, 11, 24);
        var (imke, tomasz, adaeze, per) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var whip = new PostureSide(Guid.NewGuid(), Side.Left);
        Observation Saw(Guid student, int daysAgo, Sign sign, Stage? stage = null) =>
            new(
                Guid.NewGuid(),
                Guid.Empty,
                today.AddDays(-daysAgo),
                student,
                whip.PostureId,
                whip.Side,
                sign,
                stage,
                null,
                "knee drifts in",
                Weight.KeyPoint,
                Guid.Empty,
                default
            );
        var book = new ProgressBook(
            new[] { imke, tomasz, adaeze, per }.ToDictionary(student => student, _ => Material.NoPlace),
            [],
            [],
            [
                Saw(imke, 24, Sign.Stage, Stage.Alone),
                Saw(tomasz, 7, Sign.Fault),
                Saw(adaeze, 7, Sign.Stage, Stage.Follows),
                Saw(per, 7, Sign.Stage, Stage.Alone),
            ],
            today
        );
        var everybody = new[] { per, adaeze, tomasz, imke }.Select(student => new Watchable(
            student,
            Guid.Empty,
            [whip],
            Overlooked: false
        ));
        Assert.Equal(
            [
                (imke, WatchReason.LongUnseen),
                (tomasz, WatchReason.SecondLook),
                (adaeze, WatchReason.OneFromAlone),
                (per, WatchReason.InTurn),
            ],
            WatchList.Of(everybody, book, today).Select(watched => (watched.StudentId, watched.Reason))
        );
    }
}
