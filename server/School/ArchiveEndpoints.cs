using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>The whole school out of and into one open file, for its head.</summary>
internal static class ArchiveEndpoints
{
    public const string Address = "/api/archive";

    private const long MostBytes = 512L * 1024 * 1024;

    /// <summary>One line of the answer while an archive is read, and the last one when it is done.</summary>
    /// <param name="Kept">Whether everything is in; false for all lines but the last.</param>
    /// <param name="Problem">Why nothing was kept.</param>
    public sealed record Progress(int Done, int Of, bool Kept, string? Problem = null);

    public static void Map(ByRank api)
    {
        var archive = api.Head.MapGroup("/archive");
        archive.MapGet("", Write).Produces<string>(200, "application/zip").TakesATurn().WithName("archive");
        archive
            .MapPost("", Read)
            .WithMetadata(new SizeLimit(MostBytes))
            .Produces<Progress>(200, SaidLines.ContentType)
            .TakesATurn()
            .WithName("readArchive");
    }

    private static async Task Write(
        HttpContext http,
        ArchiveWriter writer,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var name = await db.Schools.Select(school => school.Name).SingleAsync(cancel);
        var plain = string.Concat(name.Select(letter => char.IsAsciiLetterOrDigit(letter) ? letter : '-')).Trim('-');
        http.Response.ContentType = "application/zip";
        http.Response.Headers.ContentDisposition =
            $"attachment; filename=\"{(plain.Length > 0 ? plain : "school")}-{await clock.TodayAsync(cancel):yyyy-MM-dd}.zip\"";
        // Written aside first: what is sent is whole, or it is an error that says so.
        await using var aside = Aside();
        await writer.WriteAsync(aside, cancel);
        aside.Position = 0;
        http.Response.ContentLength = aside.Length;
        await aside.CopyToAsync(http.Response.Body, cancel);
    }

    private static async Task Read(
        HttpContext http,
        ArchiveReader reader,
        Actor head,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        http.Response.ContentType = SaidLines.ContentType;
        await using var aside = Aside();
        await http.Request.Body.CopyToAsync(aside, cancel);
        aside.Position = 0;
        var (last, of) = (0, 0);
        try
        {
            await reader.ReadAsync(
                aside,
                head.StaffId,
                await clock.TodayAsync(cancel),
                (done, all) =>
                {
                    (last, of) = (done, all);
                    return http.SayAsync<Progress>(new(done, all, false), cancel);
                },
                cancel
            );
            await http.SayAsync(new Progress(last, of, true), cancel);
        }
        catch (ArchiveUnreadableException unreadable)
        {
            await http.SayAsync(new Progress(last, of, false, unreadable.Message), cancel);
        }
    }

    /// <summary>A file that goes when it is closed.</summary>
    private static FileStream Aside() =>
        new(
            Path.Combine(Path.GetTempPath(), $"zeitplan-{Guid.NewGuid():N}"),
            new FileStreamOptions
            {
                Mode = FileMode.CreateNew,
                Access = FileAccess.ReadWrite,
                Options = FileOptions.DeleteOnClose | FileOptions.Asynchronous,
            }
        );
}
