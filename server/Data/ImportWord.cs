using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core.Exchange;

namespace Zeitplan.Server.Data;

/// <summary>A word of this school's spreadsheets, remembered from the file it was explained for.</summary>
/// <param name="Field">In which kind of column, as <see cref="RosterField"/> is called; empty for a header.</param>
/// <param name="Word">Plain: lower case, without accents.</param>
/// <param name="Meaning">As <see cref="RosterWord"/> has it.</param>
public sealed record ImportWord(string Field, string Word, string Meaning)
{
    public RosterWord Said => new(Field.Length == 0 ? null : Enum.Parse<RosterField>(Field), Word, Meaning);
}

internal sealed class ImportWordConfiguration : IEntityTypeConfiguration<ImportWord>
{
    public void Configure(EntityTypeBuilder<ImportWord> builder)
    {
        builder.ToTable("import_words");
        builder.HasKey(word => new { word.Field, word.Word });
        builder.Property(word => word.Field).HasMaxLength(20);
        builder.Property(word => word.Word).HasMaxLength(RosterWord.LongestWord);
        builder.Property(word => word.Meaning).HasMaxLength(RosterWord.LongestWord);
        builder.Ignore(word => word.Said);
    }
}
