using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Support.UI;
using PorchLight.Browser.Tests;
using PorchLight.Testing;

// Takes the pictures of docs/screenshots from a running demo and an empty program:  shots HOUSE SAMPLE-SITE FOLDER EMPTY-HOUSE
// or one picture of one page:                                  shots HOUSE PATH FILE.png [WIDTH]
var address = args[0];
using var browser = Chromium.Start();
browser.Resize(1280, 800);
if (args[2].EndsWith(".png", StringComparison.Ordinal))
{
    var width = args.Length > 3 ? int.Parse(args[3], CultureInfo.InvariantCulture) : 1280;
    SignIn();
    browser.Resize(width, width < 600 ? 844 : 800);
    browser.Navigate().GoToUrl(args[1].StartsWith("http", StringComparison.Ordinal) ? args[1] : address + args[1]);
    Settle();
    Take(args[2]);
    return;
}

var (sample, folder) = (args[1], args[2]);
Directory.CreateDirectory(folder);
browser.Navigate().GoToUrl(args[3]);
Find("option[value=IE]"); // The countries come after the form.
Save("first-run");
browser.Navigate().GoToUrl(address + "/");
Find("button[type=submit]");
SignIn();
Save("today");
Open("/forms", "form-list");
Find("main ul a").Click();
Find("button[data-line='budget']").Click();
Find("button[data-line='budget'][aria-current='true']");
browser.SwitchTo().Frame(Find("iframe"));
Find("[data-place='budget']");
browser.SwitchTo().DefaultContent();
Save("workbench");
Find("a[href$='/ways-in']").Click();
var link = PublicAddress();
Open("/forms", null);
FindAll("main ul a")[1].Click();
Find("a[href$='/settings']").Click();
Find("input[placeholder='like May 2027']");
Save("form-settings");
Find("a[href$='/ways-in']").Click();
Find("form input[type=email]");
var sign = PublicAddress();
Save("ways-in");
Open("/inquiries", null);
FindAll("main a[data-row]").First(row => row.Text.Contains("Tilda", StringComparison.Ordinal)).Click();
Find("aside dl");
Save("inquiry");
Open("/forms", null);
FindAll("main a").First(link => link.Text.Contains("A wall to paint", StringComparison.Ordinal)).Click();
FindAll("nav a").First(link => link.Text == "Screening").Click();
Find("svg[aria-label*='past inquiries']");
Save("screening");
Open("/follow-through", null);
FindAll("main a").First(link => link.Text.Contains("After a mural inquiry", StringComparison.Ordinal)).Click();
Find("select[aria-label='What they do']").SendKeys("answer");
Find("input[aria-label='On which day']");
new WebDriverWait(browser, TimeSpan.FromSeconds(15)).Until(driver =>
    driver.FindElement(By.TagName("aside")).Text.Contains("they answer. It ends", StringComparison.Ordinal)
);
Save("follow-through");
Open("/library", null);
FindAll("main a").First(link => link.Text.Contains("How a mural", StringComparison.Ordinal)).Click();
Find(".formatted ol");
Save("library");
Open("/clients", null);
FindAll("main a[data-row]").First(row => row.Text.Contains("Pilar", StringComparison.Ordinal)).Click();
Find("aside dl");
Save("client");
Open("/", null);
FindAll("li:has(a[href^='/nods/'])")
    .First(row => row.Text.Contains("gap", StringComparison.Ordinal))
    .FindElement(By.CssSelector("a"))
    .Click();
Find("aside [role=textbox]");
Save("nod");
Open("/practice-mail", null);
FindAll("main a[data-row]").First(row => row.Text.Contains("thank you", StringComparison.Ordinal)).Click();
Find("aside iframe");
Save("practice-mail");

Open("/settings/look", "settings");

// From here on a mail server takes every message to its end and never says whether it has it.
await using var mailServer = new SmtpHost(Enumerable.Repeat(SmtpBehaviour.DropsAfterTheEnd, 9));
Open("/settings/mail", null);
FindAll("input[type=radio]")[1].Click();
Write("Mail server", "127.0.0.1");
Write("Port", mailServer.Port.ToString(CultureInfo.InvariantCulture));
Find("main form select").SendKeys("Not protected");
Find("main form button[type=submit]").Click();
new WebDriverWait(browser, TimeSpan.FromSeconds(15)).Until(driver =>
    driver.FindElement(By.TagName("body")).Text.Contains("Saved.", StringComparison.Ordinal)
);

browser.Navigate().GoToUrl(sample);
browser.SwitchTo().Frame(Find("iframe"));
Find("form");
browser.SwitchTo().DefaultContent();
Save("sample-site");
browser.Navigate().GoToUrl(link);
Find("button[type=submit]").Click();
Find("[role=alert]");
Save("form-errors");
Fill();
SendWith("Under 1,500");
Save("send-off-not-now");
browser.Navigate().GoToUrl(sign);
Find("main img");
Save("form-cover");

browser.Resize(390, 844);
browser.Navigate().GoToUrl(sign);
FindAll("main button").First(button => button.Text == "Tell us about your front").Click();
Find("fieldset fieldset input[type=text]").SendKeys("Quill & Daughter");
Find("[role=status]");
Save("form-rows");

string PublicAddress() => Find("textarea[readonly]").GetDomProperty("value")!;

void SignIn()
{
    browser.Navigate().GoToUrl(address + "/");
    Find("input[type=email]").SendKeys("maren@ochrewren.example");
    Find("input[type=password]").SendKeys("the-lamp-is-on");
    Find("button[type=submit]").Click();
    Find("nav");
    Settle();
}

void Fill()
{
    var texts = FindAll("input[type=text]");
    texts[0].SendKeys("Robin");
    texts[1].SendKeys("Pell");
    Find("input[type=email]").SendKeys("robin@pell-cycles.example");
    texts[2].SendKeys("Arklow");
    Find("button[type=submit]").Click();
    Find("textarea");
}

void SendWith(string budget)
{
    Find("textarea").SendKeys("The back wall of our yard, seen from the train.");
    Choose(budget);
    Choose("Yes, I decide");
    Find("button[type=submit]").Click();
    Find("h1[tabindex]");
}

void Write(string label, string words)
{
    var box = FindAll("label").First(one => one.Text.StartsWith(label, StringComparison.Ordinal)).FindElement(By.TagName("input"));
    box.SendKeys(Keys.Control + "a");
    box.SendKeys(words);
}

void Choose(string label) => FindAll("label").First(one => one.Text == label).Click();

void Open(string path, string? save)
{
    browser.Navigate().GoToUrl(address + path);
    Find("main h1");
    Settle();
    if (save is not null)
        Save(save);
}

IWebElement Find(string css) => FindAll(css)[0];

IReadOnlyList<IWebElement> FindAll(string css)
{
    Settle();
    return new WebDriverWait(browser, TimeSpan.FromSeconds(15)).Until(driver =>
        driver.FindElements(By.CssSelector(css)) is { Count: > 0 } found ? found : null
    )!;
}

void Settle() =>
    new WebDriverWait(browser, TimeSpan.FromSeconds(15)).Until(driver =>
        ((IJavaScriptExecutor)driver).ExecuteScript(
            "return document.readyState === 'complete' && !document.querySelector('[role=status][aria-label=\"One moment\"]') && document.fonts.status === 'loaded'"
        )
            is true
    );

void Save(string name) => Take(Path.Combine(folder, name + ".png"));

void Take(string file)
{
    Settle();
    // One more frame, so that what has just been measured is also painted.
    browser.ExecuteAsyncScript(
        "const done = arguments[arguments.length - 1]; requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done, 150)))"
    );
    ((ITakesScreenshot)browser).GetScreenshot().SaveAsFile(file);
    Console.WriteLine(file);
}
