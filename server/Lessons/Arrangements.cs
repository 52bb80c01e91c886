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

    /// <param name="kept">What is kept of the lesson stands, as long as it is still the one it was arranged for.</param>
    public (string Problem, Arrangement Arrangement) Of(LessonProblem problem, KeptArrangement? kept)
    {
        var word = Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(problem)));
        if (kept?.Problem == word)
        {
            return (word, kept.Arrangement);
        }

        // Whoever asks while it is being made waits for it.
        var arrangement = made.GetOrCreate(
            word,
            entry =>
            {
                entry.Size = 1;
                return new Lazy<Arrangement>(() => LessonArranger.Arrange(problem));
            }
        )!;
        return (word, arrangement.Value);
    }

    public void Dispose() => made.Dispose();
}
