using System.Text.Json;

namespace Zeitplan.Core.Exchange;

/// <summary>What is wrong with a file: where, both from 1, and what.</summary>
public sealed record FileProblem(int Line, int Column, string Message);

/// <summary>A library that was read, or the reason why nothing of the file is taken.</summary>
public sealed record LibraryReading(FormLibrary? Library, IReadOnlyList<FileProblem> Problems);

/// <summary>Reads a file of postures and forms. A bad file is refused whole.</summary>
public static class LibraryReader
{
    public static LibraryReading Read(byte[] file)
    {
        if (file.Length > FormLibrary.MostBytes)
        {
            return Refuse(
                1,
                1,
                $"The file has {file.Length / 1024 / 1024} MB; a form library has at most {FormLibrary.MostBytes / 1024 / 1024}."
            );
        }

        var json = file.AsSpan().StartsWith("\uFEFF"u8) ? file[3..] : file;
        try
        {
            if (WrongKind(json) is { } problem)
            {
                return new(null, [problem]);
            }

            var library =
                JsonSerializer.Deserialize<FormLibrary>(json, LibraryJson.Strict)
                ?? throw new JsonException("The file is empty.");
            return SoundInput.Check(library) is { Count: > 0 } problems
                ? new(null, [.. problems.Select(unsound => At(json, unsound))])
                : new(library, []);
        }
        catch (JsonException exception)
        {
            var line = (int)(exception.LineNumber ?? 0);
            return Refuse(line + 1, (int)(exception.BytePositionInLine ?? 0) + 1, Plain(exception));
        }
    }

    /// <summary>The format and its version are looked at before anything else, so that a newer file is called newer and
    /// not wrong.</summary>
    private static FileProblem? WrongKind(byte[] json)
    {
        using var document = JsonDocument.Parse(json, new() { MaxDepth = LibraryJson.Strict.MaxDepth });
        if (
            document.RootElement.ValueKind != JsonValueKind.Object
            || !document.RootElement.TryGetProperty("format", out var format)
            || format.ValueKind != JsonValueKind.String
            || format.GetString() != FormLibrary.FormatName
        )
        {
            return Problem(
                "format",
                $"This is no form library: it does not say \"format\": \"{FormLibrary.FormatName}\"."
            );
        }

        return !document.RootElement.TryGetProperty("version", out var version)
            || version.ValueKind != JsonValueKind.Number
            || !version.TryGetInt32(out var number)
            || number < 1
                ? Problem("version", "The file does not say which version of the format it is.")
            : number > FormLibrary.CurrentVersion
                ? Problem(
                    "version",
                    $"The file is version {number} of the format; this Zeitplan reads version {FormLibrary.CurrentVersion}. Export it again from the older school, or update this one."
                )
            : null;

        FileProblem Problem(string path, string message)
        {
            var (line, column) = JsonPlaces.Of(json, path);
            return new(line, column, message);
        }
    }

    private static FileProblem At(byte[] json, Problem problem)
    {
        var (line, column) = JsonPlaces.Of(json, problem.Field);
        return new(line, column, $"At {problem.Field}: {problem.Message}");
    }

    private static LibraryReading Refuse(int line, int column, string message) =>
        new(null, [new(line, column, message)]);

    /// <summary>The message without the runtime's own names of types and the place, which stand beside it.</summary>
    private static string Plain(JsonException exception)
    {
        var message = exception.Message;
        var end = message.IndexOf(" Path: ", StringComparison.Ordinal);
        message = end > 0 ? message[..end] : message;
        var at = exception.Path is { Length: > 1 } path ? $"At {path[2..]}: " : "";
        return message switch
        {
            _ when message.Contains("depth", StringComparison.Ordinal) =>
                $"The file nests deeper than {LibraryJson.Strict.MaxDepth} levels; no form library does.",
            _ when message.StartsWith("The JSON value could not be converted", StringComparison.Ordinal) =>
                $"{at}this value is not of the kind that belongs here.",
            _ when message.Contains("could not be mapped", StringComparison.Ordinal) =>
                $"{at}the format has no such field.",
            _ when message.Contains("uplicate propert", StringComparison.Ordinal) =>
                $"{at}the same field stands twice here; only one can be meant.",
            _ when message.Contains("missing required properties", StringComparison.Ordinal)
                    || message.Contains("Missing required", StringComparison.OrdinalIgnoreCase) =>
                $"{at}{message[message.IndexOf("missing", StringComparison.OrdinalIgnoreCase)..]}",
            _ => at + message,
        };
    }
}
