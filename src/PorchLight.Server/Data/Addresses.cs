namespace PorchLight.Server.Data;

internal static class Addresses
{
    /// <summary>The address of this house as somebody reached it: "https://forms.example.com".</summary>
    public static string Site(this HttpRequest request) => $"{request.Scheme}://{request.Host}";
}
