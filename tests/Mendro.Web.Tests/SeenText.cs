using System.Text.RegularExpressions;
using AngleSharp.Dom;

namespace Mendro.Web.Tests;

/// <summary>Text as a reader sees it.</summary>
public static partial class SeenText
{
    /// <summary>Text of an element with every run of white space as one space, as a browser shows it.</summary>
    public static string Words(this IElement element) => WhiteSpace().Replace(element.TextContent, " ").Trim();

    [GeneratedRegex(@"\s+")]
    private static partial Regex WhiteSpace();
}
