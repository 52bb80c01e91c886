using Npgsql;

namespace Zeitplan.Bench;

/// <summary>The rows a page needs, read in one batch and thrown away: what no page can be faster than.</summary>
internal static class BareSql
{
    /// <param name="one">The parameter of every statement.</param>
    public static async Task ReadAsync(NpgsqlDataSource database, Guid one, params IReadOnlyList<string> statements)
    {
        await using var batch = database.CreateBatch();
        foreach (var text in statements)
        {
            batch.BatchCommands.Add(new(text) { Parameters = { new() { Value = one } } });
        }

        await using var reader = await batch.ExecuteReaderAsync();
        var values = new object[40];
        do
        {
            while (await reader.ReadAsync())
            {
                reader.GetValues(values);
            }
        }
        while (await reader.NextResultAsync());
    }
}
