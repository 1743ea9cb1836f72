using MailKit.Security;
using PorchLight.Server.Brand;

namespace PorchLight.Server.Messages;

/// <summary>Lines to mail servers.</summary>
internal static class MailLines
{
    /// <summary>How a line is protected, in the words of the mail library.</summary>
    public static SecureSocketOptions ToOptions(this MailSecurity security) =>
        security switch
        {
            MailSecurity.Tls => SecureSocketOptions.SslOnConnect,
            MailSecurity.StartTls => SecureSocketOptions.StartTls,
            _ => SecureSocketOptions.None,
        };
}
