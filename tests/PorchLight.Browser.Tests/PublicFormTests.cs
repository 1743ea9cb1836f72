using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace PorchLight.Browser.Tests;

public sealed partial class PublicFormTests
{
    [Theory]
    [InlineData("1,500 to 4,000", "Thank you, we will look at this properly", "You hear from us by")]
    [InlineData("Under 1,500", "This one is not for us, and here is who may help", "Other ways forward")]
    public async Task Everybody_gets_the_send_off_that_fits(string budget, string title, string words)
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor(390, 844);
        lead.Open(app.FormAddress);
        FillFirstPage(lead);
        FillSecondPage(lead, budget);
        lead.Press("Send");
        lead.Sees(title);
        lead.Sees(words);
        lead.FindsNothingInTheWay();
    }

    [Fact]
    public async Task The_form_stands_in_the_page_and_is_not_asked_for_again()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(app.FormAddress + "?utm_source=<%2Fscript>flyer");
        lead.Sees("First name");
        Asked(lead).ShouldBe(0);
        lead.Browser.Title.ShouldContain("A wall to paint");
        FillFirstPage(lead);
        FillSecondPage(lead, "4,000 to 9,000");
        lead.Press("Send");
        lead.Sees("Come in, the lamp is on");

        static long Asked(Visitor lead) =>
            lead.Run<long>(
                "return performance.getEntriesByType('resource').filter(one => /public\\/forms\\/[^/]+(\\?|$)/.test(one.name)).length"
            );
    }

    [Theory]
    [InlineData(320)]
    [InlineData(390)]
    public async Task On_a_phone_nothing_sticks_out_sideways(int width)
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor(width, 700);
        lead.Open(app.FormAddress);
        lead.Press("Go on");
        lead.Sees("3 answers need another look");
        Narrow(lead);
        lead.FindsNothingInTheWay();
        FillFirstPage(lead);
        Narrow(lead);
        FillSecondPage(lead, "4,000 to 9,000");
        lead.Press("Send");
        lead.Sees("Come in, the lamp is on");
        Narrow(lead);

        static void Narrow(Visitor lead) =>
            lead.Run<bool>("return document.documentElement.scrollWidth <= window.innerWidth").ShouldBeTrue();
    }

    [Fact]
    public async Task The_keyboard_alone_is_enough_and_mistakes_take_the_focus()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(app.FormAddress);
        lead.Field("First name").SendKeys(Keys.Enter);
        lead.Sees("3 answers need another look");
        lead.Wait("the summary has the focus", () => lead.Browser.SwitchTo().ActiveElement().GetDomAttribute("role") == "alert");
        lead.Keyboard(Keys.Tab, Keys.Enter);
        lead.Keyboard("Robin", Keys.Tab, "Pell", Keys.Tab, "robin@pell.example", Keys.Tab, Keys.Tab, "Arklow", Keys.Enter);
        lead.Sees("What would you like painted?");
        lead.Keyboard(Keys.Tab, "A wall", Keys.Tab, Keys.Space, Keys.ArrowDown, Keys.ArrowDown, Keys.Tab, Keys.Space);
        lead.Press("Send");
        lead.Sees("Come in, the lamp is on");
        lead.Browser.SwitchTo().ActiveElement().TagName.ShouldBe("h1");
    }

    [Fact]
    public async Task A_reload_and_the_browsers_own_back_lose_no_answer()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(app.FormAddress);
        FillFirstPage(lead);
        lead.Type("What would you like painted?", "A very long thought");
        lead.Reload();
        lead.Wait(
            "the thought is there",
            () => lead.Field("What would you like painted?").GetDomProperty("value") == "A very long thought"
        );
        lead.Leaf(browser => browser.Back());
        lead.Sees("You and the place");
        lead.Field("Where is the wall?").GetDomProperty("value").ShouldBe("Arklow");
        lead.Leaf(browser => browser.Forward());
        lead.Wait(
            "the thought is still there",
            () => lead.Field("What would you like painted?").GetDomProperty("value") == "A very long thought"
        );
    }

    [Fact]
    public async Task A_double_click_on_send_is_one_inquiry()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(app.FormAddress);
        FillFirstPage(lead);
        FillSecondPage(lead, "4,000 to 9,000");
        new Actions(lead.Browser).DoubleClick(lead.Find("//button[normalize-space()='Send']")).Perform();
        lead.Sees("Come in, the lamp is on");
        app.Ask(db => db.Inquiries.Count()).ShouldBe(1);
    }

    [Fact]
    public async Task A_light_that_goes_out_meanwhile_is_said_and_the_answers_stay()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.WillBeRefused("status of 409");
        lead.Open(app.FormAddress);
        FillFirstPage(lead);
        FillSecondPage(lead, "4,000 to 9,000");
        app.Write(db => db.Forms.ExecuteUpdate(form => form.SetProperty(one => one.LightOn, false)));
        lead.Press("Send");
        lead.Sees("We are up on a scaffold");
        lead.Field("What would you like painted?").GetDomProperty("value").ShouldBe("The yard wall");
        lead.Open(app.FormAddress);
        lead.Sees("A wall to paint: the light is off");
        lead.FindsNothingInTheWay();
    }

    [Fact]
    public async Task An_address_that_is_no_form_says_what_to_do()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.WillBeRefused("status of 404");
        lead.Open(app.Address + "/f/cut-short");
        lead.Sees("There is no form at this address.");
        lead.FindsNothingInTheWay();
    }

    [Fact]
    public void The_first_load_is_small()
    {
        var root = Path.Combine(AppContext.BaseDirectory, "../../../../../src/PorchLight.Server/wwwroot");
        new FileInfo(Path.Combine(root, "embed.js.gz")).Length.ShouldBeLessThan(3 * 1024);
        var page = File.ReadAllText(Path.Combine(root, "form/index.html"));
        Scripts()
            .Matches(page)
            .Select(script => new FileInfo(Path.Combine(root, script.Groups["path"].Value + ".gz")).Length)
            .Sum()
            .ShouldBeInRange(50 * 1024, 100 * 1024);
    }

    [GeneratedRegex(@"(?:src|href)=""/(?<path>form/assets/[^""]+\.js)""")]
    private static partial Regex Scripts();

    internal static void FillFirstPage(Visitor lead)
    {
        lead.Type("First name", "Robin");
        lead.Type("Family name", "Pell");
        lead.Type("Your e-mail address", "robin@pell-cycles.example");
        lead.Type("Where is the wall?", "Arklow");
        lead.Press("Go on");
        lead.Sees("What would you like painted?");
    }

    internal static void FillSecondPage(Visitor lead, string budget, string wish = "The yard wall")
    {
        lead.Type("What would you like painted?", wish);
        lead.Choose(budget);
        lead.Choose("Yes, I decide");
    }
}
