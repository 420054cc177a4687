using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Mendro.Web;

/// <summary>Gives every form that changes something a key of its own, so that a double click or a retry is done once.</summary>
[HtmlTargetElement("form", Attributes = "method")]
public sealed class OnceTagHelper : TagHelper
{
    /// <summary>Name of the field.</summary>
    public const string Field = "once";

    /// <inheritdoc/>
    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        if (
            context.AllAttributes["method"]?.Value?.ToString() is not { } method
            || !method.Equals("post", StringComparison.OrdinalIgnoreCase)
        )
            return;
        output.PostContent.AppendHtml($"<input type=\"hidden\" name=\"{Field}\" value=\"{Guid.NewGuid():N}\">");
    }
}
