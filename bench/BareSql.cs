using Npgsql;

namespace Zeitplan.Bench;

/// <summary>The rows a page needs, asked for one statement after the other as the page does, and thrown away.</summary>
internal static class BareSql
{
    /// <param name="one">The parameter of every statement.</param>
    public static async Task ReadAsync(NpgsqlDataSource database, Guid one, params IReadOnlyList<string> statements)
    {
        await using var connection = await database.OpenConnectionAsync();
        var values = new object[40];
        foreach (var text in statements)
        {
            await using var command = new NpgsqlCommand(text, connection) { Parameters = { new() { Value = one } } };
            await using var reader = await command.ExecuteReaderAsync();
            while (await reader.ReadAsync())
            {
                reader.GetValues(values);
            }
        }
    }
}
