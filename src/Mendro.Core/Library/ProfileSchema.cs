using Mendro.Core.Profiles;
using NJsonSchema;
using NJsonSchema.Validation;

namespace Mendro.Core.Library;

/// <summary>Checks a text against the JSON Schema of <c>mendro.profile/1</c> and names the place of every error.</summary>
public static class ProfileSchema
{
    private const int MostProblems = 40;

    private static readonly Lazy<JsonSchema> Schema = new(() =>
        JsonSchema.FromJsonAsync(TradeLibrary.ReadText("profile.schema.json")).GetAwaiter().GetResult()
    );

    /// <summary>Reads a profile from a file of somebody else: schema first, then everything a schema cannot say.</summary>
    /// <param name="json">Text of the file.</param>
    /// <param name="library">Library it must fit.</param>
    /// <param name="problems">All problems; empty when the profile can be used.</param>
    /// <returns>The profile, or null when it cannot be read at all.</returns>
    public static DeviceProfile? Import(string json, TradeLibrary library, out IReadOnlyList<ProfileProblem> problems)
    {
        problems = JsonGate.Check(json).Take(MostProblems).ToList();
        if (problems.Count > 0)
            return null;
        try
        {
            problems = Schema.Value.Validate(json).SelectMany(Flatten).DistinctBy(p => p.Place + p.Message).Take(MostProblems).ToList();
        }
        catch (Exception ex) when (ex is Newtonsoft.Json.JsonException or FormatException or OverflowException or InvalidCastException)
        {
            problems = [new ProfileProblem("the file", $"this is not JSON. {FirstSentence(ex.Message)}")];
            return null;
        }

        if (problems.Count > 0)
            return null;
        var read = ProfileJson.Read(json);
        if (!read.IsOk)
        {
            problems = [new ProfileProblem("the file", read.Problem)];
            return null;
        }

        problems = ProfileValidator.Check(read.Value, library);
        return read.Value;
    }

    private static IEnumerable<ProfileProblem> Flatten(ValidationError error)
    {
        var inner = error is ChildSchemaValidationError child ? child.Errors.Values.SelectMany(e => e).SelectMany(Flatten).ToList() : [];
        return inner.Count > 0 ? inner : [new ProfileProblem(Place(error), Words(error))];
    }

    private static string Place(ValidationError error)
    {
        var path = (error.Path ?? "").TrimStart('#', '/').Replace(".[", "[", StringComparison.Ordinal);
        return (path.Length > 0 ? path : "the file") + (error.HasLineInfo && error.LineNumber > 0 ? $" (line {error.LineNumber})" : "");
    }

    private static string Words(ValidationError error) =>
        error.Kind switch
        {
            ValidationErrorKind.PropertyRequired => $"“{error.Property}” is missing.",
            ValidationErrorKind.NoAdditionalPropertiesAllowed => $"the format knows no “{error.Property}”.",
            ValidationErrorKind.NotInEnumeration => $"must be one of: {string.Join(", ", error.Schema.Enumeration)}.",
            ValidationErrorKind.StringExpected => "must be text.",
            ValidationErrorKind.NumberExpected or ValidationErrorKind.IntegerExpected => "must be a number.",
            ValidationErrorKind.ArrayExpected => "must be a list.",
            ValidationErrorKind.ObjectExpected => "must be an object in braces.",
            ValidationErrorKind.PatternMismatch => "only lower case letters, digits and hyphens, beginning with a letter or digit.",
            ValidationErrorKind.StringTooShort => "must not be empty.",
            ValidationErrorKind.StringTooLong => "is too long.",
            ValidationErrorKind.NumberTooSmall or ValidationErrorKind.NumberTooBig or ValidationErrorKind.IntegerTooBig =>
                "is outside the allowed range.",
            ValidationErrorKind.TooManyItems => "has too many entries: a model that large is two models, or a board of its own.",
            ValidationErrorKind.TooFewItems => "has too few entries.",
            _ => $"does not fit the format ({error.Kind}).",
        };

    private static string FirstSentence(string text) => text.Split(". ", 2)[0].TrimEnd('.') + ".";
}
