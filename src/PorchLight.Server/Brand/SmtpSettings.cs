namespace PorchLight.Server.Brand;

/// <summary>How the line to the mail server is protected.</summary>
internal enum SmtpSecurity
{
    /// <summary>Begins openly and must change to TLS (usually port 587).</summary>
    StartTls,

    /// <summary>TLS from the first byte (usually port 465).</summary>
    Tls,

    /// <summary>None; only for a mail server on the same machine or network.</summary>
    None,
}

/// <summary>Where mail is handed over.</summary>
/// <param name="User">Null when the server asks for no sign-in.</param>
/// <param name="PasswordSealed">Null when the server asks for no sign-in.</param>
internal sealed record SmtpSettings(string Host, int Port, SmtpSecurity Security, string? User, string? PasswordSealed);
