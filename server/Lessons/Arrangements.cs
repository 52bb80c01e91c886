using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using Zeitplan.Arranger;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Lessons;

/// <summary>Arrangements that have been made before are not made again: by the lesson they are of, in one word, so that
/// schools can share them without knowing.</summary>
internal sealed class Arrangements : IDisposable
{
    private const int MostKept = 500;
    private readonly MemoryCache made = new(new MemoryCacheOptions { SizeLimit = MostKept });

    /// <param name="kept">What is kept of the lesson stands, as long as it is still the one it was arranged for; otherwise
    /// what need not change stays as it is there.</param>
    public (string Problem, Arrangement Arrangement) Of(LessonProblem problem, KeptArrangement? kept)
    {
        var word = WordOf(problem);
        return (
            word,
            kept is null ? Untouched(word, problem)
            : kept.Problem == word ? kept.Arrangement
            : Made(word, problem, kept.Arrangement)
        );
    }

    /// <summary>Of a lesson nobody has touched, what people have seen stays while all who are due a look have one: after a
    /// mark other people are, and rarely more.</summary>
    private Arrangement Untouched(string word, LessonProblem problem)
    {
        var same =
            $"untouched {WordOf(problem with { Cohorts = [.. problem.Cohorts.Select(its => its with { Due = 0 })] })}";
        var arrangement = Made(
            word,
            () =>
                made.TryGetValue(same, out Arrangement? stood) && LessonArranger.Unmoved(problem, stood!) is { } still
                    ? still
                    : LessonArranger.Arrange(problem)
        );
        made.Set(same, arrangement, new MemoryCacheEntryOptions { Size = 1 });
        return arrangement;
    }

    /// <summary>A lesson once something about it has been changed: near what stood. What was fixed and is let go may be
    /// anywhere.</summary>
    /// <param name="was">The lesson before.</param>
    /// <param name="stood">As it was arranged.</param>
    public (string Problem, Arrangement Arrangement) After(LessonProblem was, Arrangement stood, LessonProblem problem)
    {
        var fixedStill = problem.Pins.Select(pin => pin.Key).ToHashSet();
        var free = was.Pins.Select(pin => pin.Key).Where(key => !fixedStill.Contains(key)).ToHashSet();
        var word = WordOf(problem);
        return (
            word,
            Made(
                word,
                problem,
                stood with
                {
                    Blocks = [.. stood.Blocks.Where(block => block.Task is null || !free.Contains(block.Task))],
                }
            )
        );
    }

    /// <summary>A lesson as it could be, only tried: whoever decides on it keeps what need not change.</summary>
    public Arrangement Tried(LessonProblem problem) =>
        Made($"tried {WordOf(problem)}", () => LessonArranger.Arrange(problem));

    private static string WordOf(LessonProblem problem) =>
        Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(problem)));

    /// <summary>As it was made for the same lesson before, so that taking a step back gives what was there; whoever asks while it
    /// is being made waits for it.</summary>
    private Arrangement Made(string word, LessonProblem problem, Arrangement stood) =>
        Made(word, () => LessonArranger.Arrange(problem, stood));

    private Arrangement Made(string word, Func<Arrangement> arrange) =>
        made.GetOrCreate(
            word,
            entry =>
            {
                entry.Size = 1;
                return new Lazy<Arrangement>(arrange);
            }
        )!.Value;

    public void Dispose() => made.Dispose();
}
