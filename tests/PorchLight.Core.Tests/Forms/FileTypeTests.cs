using System.Text;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Tests.Forms;

public sealed class FileTypeTests
{
    // First bytes as in the WHATWG MIME Sniffing Standard, section 6 (pictures, sounds, archives), PDF 32000-1 7.5.2, ISO/IEC 14496-12 4.3.
    [Theory]
    [InlineData("photo.JPG", "FFD8FFE000104A464946", "image/jpeg")]
    [InlineData("plan.png", "89504E470D0A1A0A0000000D", "image/png")]
    [InlineData("a.gif", "474946383961", "image/gif")]
    [InlineData("a.webp", "52494646240000005745425056503820", "image/webp")]
    [InlineData("a.heic", "00000018667479706865696300000000", "image/heic")]
    [InlineData("brief.pdf", "255044462D312E37", "application/pdf")]
    [InlineData("a.mp4", "0000001866747970697336D6D0000000", "video/mp4")]
    [InlineData("a.zip", "504B030414000000", "application/zip")]
    [InlineData("brief.docx", "504B030414000600", "application/vnd.openxmlformats-officedocument.wordprocessingml.document")]
    [InlineData("a.mp3", "49443303000000", "audio/mpeg")]
    [InlineData("list.csv", "6E616D652C73697A650D0A", "text/csv")]
    [InlineData("note.txt", "EFBBBF476FC3B36E", "text/plain")]
    public void A_file_is_what_its_first_bytes_say_as_published(string name, string head, string contentType) =>
        FileTypes.Recognise(Convert.FromHexString(head), name)!.ContentType.ShouldBe(contentType);

    [Theory]
    [InlineData("photo.jpg", "MZ\u0090\0\u0003")]
    [InlineData("photo.jpg", "GIF89a")]
    [InlineData("photo.exe", "GIF89a")]
    [InlineData("photo.png.html", "\u0089PNG\r\n\u001a\n")]
    [InlineData("logo.svg", "<svg xmlns='http://www.w3.org/2000/svg' onload='alert(1)'/>")]
    [InlineData("logo.txt", "<svg onload='alert(1)'/>")]
    [InlineData("page.txt", "  \r\n<!DOCTYPE html><script>alert(1)</script>")]
    [InlineData("page.csv", "\u00ef\u00bb\u00bf<html>")]
    [InlineData("run.sh", "#!/bin/sh")]
    [InlineData("nothing", "hello")]
    public void What_lies_about_itself_or_could_carry_script_is_not_taken(string name, string head) =>
        FileTypes.Recognise(Encoding.Latin1.GetBytes(head), name).ShouldBeNull();

    [Theory]
    [InlineData("../../etc/passwd", "passwd")]
    [InlineData("C:\\Users\\tilda\\wall.jpg", "wall.jpg")]
    [InlineData("..", "file")]
    [InlineData("", "file")]
    [InlineData("a\u202Egpj.exe", "agpj.exe")]
    [InlineData("wa\0ll\n.jpg", "wall.jpg")]
    [InlineData("Wand – Größe 🧱.png", "Wand – Größe 🧱.png")]
    public void A_name_keeps_no_path_and_nothing_unseen(string given, string kept) => FileTypes.SafeName(given).ShouldBe(kept);

    [Fact]
    public void A_long_name_keeps_its_ending() =>
        FileTypes.SafeName(new string('x', 300) + ".jpeg").ShouldBe(new string('x', 115) + ".jpeg");
}
