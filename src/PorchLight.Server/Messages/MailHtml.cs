using Ganss.Xss;

namespace PorchLight.Server.Messages;

/// <summary>Whatever HTML leaves the program passes here: what is not on the list does not.</summary>
internal static class MailHtml
{
    private static readonly HtmlSanitizer Sanitizer = new(
        new HtmlSanitizerOptions
        {
            AllowedTags = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { "p", "br", "ul", "ol", "li", "strong", "a", "img" },
            AllowedAttributes = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { "href", "src", "alt" },
            AllowedSchemes = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { "http", "https", "mailto", "cid" },
            UriAttributes = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { "href", "src" },
        }
    );

    public static string Clean(string html)
    {
        // It keeps state of its own while it works.
        lock (Sanitizer)
            return Sanitizer.Sanitize(html);
    }
}
