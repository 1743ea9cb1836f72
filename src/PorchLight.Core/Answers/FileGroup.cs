using System.Globalization;
using System.Text;

namespace PorchLight.Core.Answers;

/// <summary>What sort of file something is, for people who say which files they take.</summary>
public enum FileGroup
{
    /// <summary>A picture: JPEG, PNG, GIF, WebP, HEIC, AVIF, TIFF.</summary>
    Picture,

    /// <summary>A document: PDF, Word, OpenDocument text, RTF, plain text.</summary>
    Document,

    /// <summary>A table: Excel, OpenDocument table, CSV.</summary>
    Table,

    /// <summary>A sound: MP3, WAV, Ogg, FLAC, M4A.</summary>
    Sound,

    /// <summary>A film: MP4, QuickTime, WebM.</summary>
    Film,

    /// <summary>A parcel of files: ZIP.</summary>
    Parcel,
}

/// <summary>What sorts of files are called.</summary>
public static class FileGroups
{
    /// <summary>The sort in a word.</summary>
    /// <param name="group">The sort.</param>
    public static string Say(this FileGroup group) =>
        group switch
        {
            FileGroup.Picture => "picture",
            FileGroup.Document => "paper",
            FileGroup.Table => "table",
            FileGroup.Sound => "sound",
            FileGroup.Film => "film",
            _ => "zip",
        };
}

/// <summary>A type of file that is taken in.</summary>
/// <param name="Group">What sort it is.</param>
/// <param name="ContentType">Its media type.</param>
/// <param name="Endings">The endings its name may have, without the dot, the usual one first.</param>
public sealed record FileType(FileGroup Group, string ContentType, params IReadOnlyList<string> Endings);

/// <summary>Recognises files by what is in them. What can carry script (HTML, SVG, XML, programs) is not among them.</summary>
public static class FileTypes
{
    /// <summary>How many bytes from the start are enough to recognise a file.</summary>
    public const int HeadLength = 512;

    private static readonly FileType Jpeg = new(FileGroup.Picture, "image/jpeg", "jpg", "jpeg");
    private static readonly FileType Png = new(FileGroup.Picture, "image/png", "png");
    private static readonly FileType Gif = new(FileGroup.Picture, "image/gif", "gif");
    private static readonly FileType WebP = new(FileGroup.Picture, "image/webp", "webp");
    private static readonly FileType Tiff = new(FileGroup.Picture, "image/tiff", "tif", "tiff");
    private static readonly FileType Heic = new(FileGroup.Picture, "image/heic", "heic", "heif");
    private static readonly FileType Avif = new(FileGroup.Picture, "image/avif", "avif");
    private static readonly FileType Pdf = new(FileGroup.Document, "application/pdf", "pdf");
    private static readonly FileType Rtf = new(FileGroup.Document, "application/rtf", "rtf");
    private static readonly FileType Text = new(FileGroup.Document, "text/plain", "txt", "md");
    private static readonly FileType Csv = new(FileGroup.Table, "text/csv", "csv");
    private static readonly FileType Mp3 = new(FileGroup.Sound, "audio/mpeg", "mp3");
    private static readonly FileType Wav = new(FileGroup.Sound, "audio/wav", "wav");
    private static readonly FileType Ogg = new(FileGroup.Sound, "audio/ogg", "ogg", "oga");
    private static readonly FileType Flac = new(FileGroup.Sound, "audio/flac", "flac");
    private static readonly FileType M4a = new(FileGroup.Sound, "audio/mp4", "m4a");
    private static readonly FileType Mp4 = new(FileGroup.Film, "video/mp4", "mp4", "m4v");
    private static readonly FileType QuickTime = new(FileGroup.Film, "video/quicktime", "mov");
    private static readonly FileType WebM = new(FileGroup.Film, "video/webm", "webm");
    private static readonly FileType Zip = new(FileGroup.Parcel, "application/zip", "zip");
    private static readonly FileType OldOffice = new(FileGroup.Document, "application/msword", "doc");
    private static readonly FileType OldTable = new(FileGroup.Table, "application/vnd.ms-excel", "xls");

    // These are ZIP files inside; which of them it is, only the name tells without unpacking.
    private static readonly FileType[] Zipped =
    [
        new(FileGroup.Document, "application/vnd.openxmlformats-officedocument.wordprocessingml.document", "docx"),
        new(FileGroup.Table, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "xlsx"),
        new(FileGroup.Document, "application/vnd.oasis.opendocument.text", "odt"),
        new(FileGroup.Table, "application/vnd.oasis.opendocument.spreadsheet", "ods"),
        Zip,
    ];

    private static readonly FileType[] All =
    [
        Jpeg,
        Png,
        Gif,
        WebP,
        Tiff,
        Heic,
        Avif,
        Pdf,
        Rtf,
        Text,
        Csv,
        Mp3,
        Wav,
        Ogg,
        Flac,
        M4a,
        Mp4,
        QuickTime,
        WebM,
        OldOffice,
        OldTable,
        .. Zipped,
    ];

    /// <summary>The endings of the files of some groups (all groups when none is named), each with its dot, for a file chooser.</summary>
    /// <param name="groups">The groups; null or empty for all.</param>
    public static IReadOnlyList<string> Endings(IReadOnlyList<FileGroup>? groups) =>
        [
            .. All.Where(type => groups is null or [] || groups.Contains(type.Group))
                .SelectMany(type => type.Endings)
                .Distinct()
                .Select(ending => $".{ending}"),
        ];

    /// <summary>
    /// What a file is by its first bytes, or null when it is none of the types that are taken, or when its name claims
    /// to be another: a program called <c>photo.jpg</c> is nothing, and so is a picture called <c>photo.exe</c>.
    /// Signatures as in the WHATWG MIME Sniffing Standard and the formats' own specifications.
    /// </summary>
    /// <param name="head">The first bytes, up to <see cref="HeadLength"/>; fewer only when the file is shorter.</param>
    /// <param name="name">The name it came with.</param>
    public static FileType? Recognise(ReadOnlySpan<byte> head, string name)
    {
        var dot = name.LastIndexOf('.');
        var ending = dot < 0 ? "" : name[(dot + 1)..].ToLowerInvariant();
        foreach (var type in BySignature(head))
        {
            if (type.Endings.Contains(ending))
                return type;
        }

        return null;
    }

    /// <summary>
    /// The name without path parts, unseen characters and what file systems dislike; at most 120 characters, never
    /// empty.
    /// </summary>
    /// <param name="name">The name as the browser sent it.</param>
    public static string SafeName(string name)
    {
        var last = name[(name.LastIndexOfAny(['/', '\\']) + 1)..];
        var kept = new StringBuilder();
        foreach (
            var rune in last.EnumerateRunes()
                .Where(rune =>
                    !Rune.IsControl(rune)
                    && Rune.GetUnicodeCategory(rune) != System.Globalization.UnicodeCategory.Format
                    && rune.Value is not ('<' or '>' or ':' or '"' or '|' or '?' or '*')
                )
        )
            kept.Append(rune.ToString());
        var clean = kept.ToString().Trim(' ', '.');
        if (clean.Length <= 120)
            return clean.Length == 0 ? "file" : clean;
        var dot = clean.LastIndexOf('.');
        var ending = dot >= clean.Length - 6 ? clean[dot..] : "";
        return clean[..(120 - ending.Length)].TrimEnd() + ending;
    }

    private static FileType[] BySignature(ReadOnlySpan<byte> head)
    {
        if (head.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]))
            return [Jpeg];
        if (head.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]))
            return [Png];
        if (head.StartsWith("GIF87a"u8) || head.StartsWith("GIF89a"u8))
            return [Gif];
        if (head.StartsWith("%PDF-"u8))
            return [Pdf];
        if (head.StartsWith("{\\rtf"u8))
            return [Rtf];
        if (head.StartsWith("II*\0"u8) || head.StartsWith("MM\0*"u8))
            return [Tiff];
        if (head.StartsWith("OggS"u8))
            return [Ogg];
        if (head.StartsWith("fLaC"u8))
            return [Flac];
        if (head.StartsWith((ReadOnlySpan<byte>)[0x1A, 0x45, 0xDF, 0xA3]))
            return [WebM];
        if (head.StartsWith("PK\x03\x04"u8))
            return Zipped;
        if (head.StartsWith((ReadOnlySpan<byte>)[0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1]))
            return [OldOffice, OldTable];
        if (head.StartsWith("RIFF"u8) && head.Length >= 12)
            return head[8..12].SequenceEqual("WEBP"u8) ? [WebP]
                : head[8..12].SequenceEqual("WAVE"u8) ? [Wav]
                : [];
        if (head.Length >= 12 && head[4..8].SequenceEqual("ftyp"u8))
            return ByBrand(head[8..12]);
        if (head.StartsWith("ID3"u8) || (head.Length >= 2 && head[0] == 0xFF && (head[1] & 0xE6) == 0xE2))
            return [Mp3];
        return IsPlainText(head) ? [Text, Csv] : [];
    }

    // ISO/IEC 14496-12: the major brand of a file in the base media format.
    private static FileType[] ByBrand(ReadOnlySpan<byte> brand)
    {
        if (brand.SequenceEqual("heic"u8) || brand.SequenceEqual("heix"u8) || brand.SequenceEqual("mif1"u8))
            return [Heic];
        if (brand.SequenceEqual("avif"u8))
            return [Avif];
        if (brand.SequenceEqual("qt  "u8))
            return [QuickTime];
        return brand.StartsWith("M4A"u8) ? [M4a] : [Mp4, M4a];
    }

    // The standard's "binary data byte" table; and nothing that a browser would take for markup.
    private static bool IsPlainText(ReadOnlySpan<byte> head)
    {
        foreach (var one in head)
        {
            if (one is < 0x09 or 0x0B or (> 0x0D and < 0x1B) or (> 0x1B and < 0x20))
                return false;
        }

        var start = head.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF]) ? head[3..] : head;
        return !start.TrimStart(" \t\r\n"u8).StartsWith("<"u8);
    }
}

/// <summary>Says how large files are.</summary>
public static class FileSize
{
    /// <summary>A size in words: "25 MB". A thousand is 1,024 here, as file managers count.</summary>
    /// <param name="bytes">At least 0.</param>
    public static string Say(long bytes) =>
        bytes switch
        {
            < 1024 => string.Create(CultureInfo.InvariantCulture, $"{bytes} bytes"),
            < 1024 * 1024 => string.Create(CultureInfo.InvariantCulture, $"{bytes / 1024.0:0} KB"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{bytes / (1024.0 * 1024.0):0.#} MB"),
        };
}
