using System.Globalization;

namespace Mendro.Core.Quantities;

/// <summary>A day as text, such as 2026-11-26 (ISO 8601): in files, in the database and in the fields of forms.</summary>
public static class DayText
{
    private const string Form = "yyyy-MM-dd";

    /// <summary>Writes a day.</summary>
    public static string Write(DateOnly day) => day.ToString(Form, CultureInfo.InvariantCulture);

    /// <summary>Reads a day.</summary>
    /// <returns>Null when the text is none.</returns>
    public static DateOnly? Read(string text) =>
        DateOnly.TryParseExact(text, Form, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;
}
