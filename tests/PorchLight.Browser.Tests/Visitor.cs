using System.Text.Json;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace PorchLight.Browser.Tests;

/// <summary>Somebody at a browser, who finds things by the words that stand there and waits until they do.</summary>
internal sealed class Visitor : IDisposable
{
    private static readonly string Axe = ReadAxe();
    private readonly WebDriverWait _patience;

    public Visitor(int width = 1280, int height = 800)
    {
        Browser = Chromium.Start();
        Browser.Resize(width, height);
        _patience = new WebDriverWait(Browser, TimeSpan.FromSeconds(20)) { PollingInterval = TimeSpan.FromMilliseconds(100) };
        _patience.IgnoreExceptionTypes(typeof(StaleElementReferenceException), typeof(ElementClickInterceptedException), typeof(ElementNotInteractableException));
    }

    public ChromeDriver Browser { get; }

    public void Open(string address) => Browser.Navigate().GoToUrl(address);

    public void SignIn(BrowserHouse house, string path = "/")
    {
        Open(house.Address + path);
        GiveSignIn();
        Find("//nav[@aria-label='Stations']");
    }

    public void GiveSignIn()
    {
        Type("E-mail", "maren@ochrewren.example");
        Type("Password", "the-lamp-is-on");
        Press("Sign in");
    }

    /// <summary>Waits until the words can be read somewhere.</summary>
    public void Sees(string words) => Wait($"sees “{words}”", () => Text.Contains(words, StringComparison.OrdinalIgnoreCase));

    public void SeesNoMore(string words) => Wait($"no longer sees “{words}”", () => !Text.Contains(words, StringComparison.OrdinalIgnoreCase));

    public string Text => Browser.FindElement(By.TagName("body")).Text;

    /// <summary>Presses a button or follows a link with exactly these words.</summary>
    public void Press(string words) => Click($"//*[(self::button or self::a or @role='menuitem') and (normalize-space()={Quote(words)} or @aria-label={Quote(words)})]");

    /// <summary>Follows the first link that holds the words.</summary>
    public void Follow(string words) => Click($"//a[contains(normalize-space(), {Quote(words)})]");

    public void Choose(string option) => Click($"//label[normalize-space()={Quote(option)}]");

    public IWebElement Field(string label) => Find(
        $"//*[self::input or self::textarea][@aria-label={Quote(label)} or ancestor::label[starts-with(normalize-space(), {Quote(label)})] or @id=//label[starts-with(normalize-space(), {Quote(label)})]/@for]");

    public void Type(string label, string words)
    {
        Wait($"types into “{label}”", () =>
        {
            var field = Field(label);
            field.SendKeys(Keys.Control + "a");
            field.SendKeys(words);
            return true;
        });
    }

    public void Click(string xpath) => Wait($"clicks {xpath}", () =>
    {
        Find(xpath).Click();
        return true;
    });

    public IWebElement Find(string xpath) => _patience.Until(driver => driver.FindElements(By.XPath(xpath)).FirstOrDefault(found => found.Displayed))
        ?? throw new NoSuchElementException(xpath);

    public void Enter(string frameXPath) => Browser.SwitchTo().Frame(Find(frameXPath));

    public void Leave() => Browser.SwitchTo().DefaultContent();

    public T Run<T>(string script) => (T)Browser.ExecuteScript(script)!;

    public void Wait(string what, Func<bool> until)
    {
        try
        {
            _patience.Until(_ => until());
        }
        catch (WebDriverTimeoutException timeout)
        {
            throw new TimeoutException($"Waited in vain: {what}. At {Browser.Url} it says:\n{Text}", timeout);
        }
    }

    /// <summary>Nothing on this screen gets in the way of people who use it differently (axe: serious and critical).</summary>
    public void FindsNothingInTheWay() => Axed("serious", "critical").ShouldBeEmpty($"at {Browser.Url}");

    /// <summary>The same, and nothing smaller either (axe: every rule and every impact).</summary>
    public void FindsNothingAtAll() => Axed("minor", "moderate", "serious", "critical").ShouldBeEmpty($"at {Browser.Url}");

    private string[] Axed(params string[] impacts)
    {
        Browser.ExecuteScript(Axe);
        var found = (string)Browser.ExecuteAsyncScript("""
            const [impacts, done] = arguments;
            axe.run(document, { iframes: false }).then(result => done(JSON.stringify(result.violations
              .filter(one => impacts.includes(one.impact))
              .map(one => one.id + ': ' + one.nodes.map(node => node.html).join(' | ')))));
            """, [impacts])!;
        return JsonSerializer.Deserialize<string[]>(found)!;
    }

    /// <summary>Nothing was asked of any host but these, and nothing went wrong in the console but refusals the test asked for.</summary>
    public void LeavesNoTraceElsewhere(params string[] hosts)
    {
        var asked = Run<IReadOnlyCollection<object>>("return performance.getEntriesByType('resource').map(entry => entry.name)").Cast<string>();
        foreach (var address in asked)
            hosts.ShouldContain(host => address.StartsWith(host, StringComparison.Ordinal) || address.StartsWith("data:", StringComparison.Ordinal), address);
        Browser.Manage().Logs.GetLog("browser").Where(entry => entry.Level == LogLevel.Severe && !entry.Message.Contains("status of 422", StringComparison.Ordinal)).Select(entry => entry.Message).ShouldBeEmpty();
    }

    public void Dispose() => Browser.Dispose();

    private static string Quote(string words) => words.Contains('\'', StringComparison.Ordinal) ? $"\"{words}\"" : $"'{words}'";

    private static string ReadAxe()
    {
        using var reader = new StreamReader(typeof(Visitor).Assembly.GetManifestResourceStream("axe.min.js")!);
        return reader.ReadToEnd();
    }
}
