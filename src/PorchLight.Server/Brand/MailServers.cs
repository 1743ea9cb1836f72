namespace PorchLight.Server.Brand;

/// <summary>How the line to a mail server is protected.</summary>
internal enum MailSecurity
{
    /// <summary>Begins openly and must change to TLS (usually port 587, or 143 to read).</summary>
    StartTls,

    /// <summary>TLS from the first byte (usually port 465, or 993 to read).</summary>
    Tls,

    /// <summary>None; only for a mail server on the same machine or network.</summary>
    None,
}

/// <summary>Where mail is handed over.</summary>
/// <param name="User">Null when the server asks for no sign-in.</param>
/// <param name="PasswordSealed">Null when the server asks for no sign-in.</param>
internal sealed record SmtpSettings(string Host, int Port, MailSecurity Security, string? User, string? PasswordSealed);

/// <summary>Where mail that comes in is read.</summary>
/// <param name="User">Who signs in.</param>
/// <param name="Folder">The folder that is read; "INBOX" for the one new mail lands in.</param>
internal sealed record ImapSettings(string Host, int Port, MailSecurity Security, string User, string PasswordSealed, string Folder)
{
    /// <summary>Names the mailbox whose messages are counted.</summary>
    public string Mailbox => $"{User}@{Host}:{Port}/{Folder}";
}
