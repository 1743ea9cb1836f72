using System.Runtime.CompilerServices;
using System.Text.Json;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace PorchLight.Browser.Tests;

/// <summary>
/// Somebody at a browser, who finds things by the words that stand there and waits until they do. What they see must be
/// new: words that stood there before the last thing they did say nothing about what it did.
/// </summary>
internal sealed class Visitor : IDisposable
{
    private static readonly string Axe = ReadAxe();
    private readonly BorrowedBrowser _lent = Browsers.Lend();
    private readonly (int Width, int Height) _size;
    private readonly WebDriverWait _patience;
    private readonly List<string> _announced = [];
    private string _before = "";

    public Visitor(int width = 1280, int height = 800)
    {
        _size = (width, height);
        Browser.Resize(width, height);
        _patience = new WebDriverWait(Browser, TimeSpan.FromSeconds(20)) { PollingInterval = TimeSpan.FromMilliseconds(25) };
        _patience.IgnoreExceptionTypes(
            typeof(StaleElementReferenceException),
            typeof(ElementClickInterceptedException),
            typeof(ElementNotInteractableException)
        );
    }

    public ChromeDriver Browser => _lent.Driver;

    /// <summary>Opens an address anew; nothing that stands there then stood there before.</summary>
    public void Open(string address) => Leaf(navigate => navigate.GoToUrl(address));

    /// <summary>
    /// Goes to a screen of the business as a link there does, without loading the program anew. It must have another title, by which
    /// one sees that it is there.
    /// </summary>
    public void GoTo(string path)
    {
        var before = Title;
        Run<bool>($"history.pushState(null, '', '{path}'); return dispatchEvent(new PopStateEvent('popstate'))");
        Wait($"{path} after {before}", () => Title is var title && title != before && title != "Porch Light");
    }

    // Without the number of what rang meanwhile.
    private string Title => Browser.Title.Split(") ")[^1];

    public void Reload() => Leaf(navigate => navigate.Refresh());

    /// <summary>Goes back and forth as the browser's own buttons do.</summary>
    public void Leaf(Action<INavigation> how)
    {
        _before = "";
        how(Browser.Navigate());
    }

    /// <summary>Opens what is on screen in a second window, goes on there, and gives the first.</summary>
    public string OpenASecondWindow()
    {
        var (first, address) = (Browser.CurrentWindowHandle, Browser.Url);
        _lent.OpenWindow();
        Browser.Resize(_size.Width, _size.Height);
        Open(address);
        return first;
    }

    /// <summary>Goes on in another window, which shows what it showed.</summary>
    public void SwitchTo(string window)
    {
        Browser.SwitchTo().Window(window);
        _before = Text;
    }

    /// <summary>Cuts this window off from every server, or brings it back.</summary>
    public void IsCutOff(bool off) =>
        Browser.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new Dictionary<string, object?>
            {
                ["offline"] = off,
                ["latency"] = 0,
                ["downloadThroughput"] = -1,
                ["uploadThroughput"] = -1,
            }
        );

    /// <summary>Keeps what has such an address from being fetched; null lets everything through again.</summary>
    public void IsKeptFrom(string? address)
    {
        Browser.ExecuteCdpCommand("Network.enable", []);
        Browser.ExecuteCdpCommand(
            "Network.setBlockedURLs",
            new Dictionary<string, object?> { ["urls"] = address is null ? [] : new[] { address } }
        );
    }

    /// <summary>Makes every answer of a server take so long to come.</summary>
    public void IsSlow(int milliseconds) =>
        Browser.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new Dictionary<string, object?>
            {
                ["offline"] = false,
                ["latency"] = milliseconds,
                ["downloadThroughput"] = -1,
                ["uploadThroughput"] = -1,
            }
        );

    /// <summary>
    /// From the next page on answers can be held back once they have come (<see cref="HoldsBack"/>), so that a test says in which order the
    /// page hears them.
    /// </summary>
    public void CanHoldBack() =>
        Browser.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new Dictionary<string, object?>
            {
                ["source"] = """
                window.held = [];
                const ask = window.fetch;
                window.fetch = async (request, how) => {
                  const answer = await ask(request, how);
                  const asked = `${how?.method ?? request.method ?? "GET"} ${request.url ?? request}`;
                  if (window.holds && asked.startsWith(window.holds[0]) && asked.split("?")[0].endsWith(window.holds[1]))
                    await new Promise((goOn) => window.held.push(goOn));
                  return answer;
                };
                """,
            }
        );

    /// <summary>Holds back every answer from such an address from now on.</summary>
    /// <param name="method">The method asked with.</param>
    /// <param name="address">How the address ends, before its parameters.</param>
    public void HoldsBack(string method, string address) => Run<object?>($"window.holds = ['{method} ', '{address}']; return null");

    /// <summary>Waits until so many answers have been held back.</summary>
    public void HasHeldBack(int answers) => Wait($"{answers} answers are held back", () => Run<long>("return held.length") >= answers);

    /// <summary>Lets one of the answers held back through, the first being 0.</summary>
    public void LetsThrough(int answer) => Run<object?>($"held[{answer}](); return null");

    /// <summary>Goes on by the tabulator until the focus is on what begins with these words, and presses keys there.</summary>
    public void TabTo(string words, params string[] keys) => Tab(Keys.Tab, words, keys);

    /// <summary>The same backwards.</summary>
    public void ShiftTabTo(string words, params string[] keys) => Tab(Keys.Shift + Keys.Tab, words, keys);

    /// <summary>Whether what has the focus begins with these words, or is called so.</summary>
    public bool Focused(string words) =>
        Run<string>(
                "const one = document.activeElement; return one.getAttribute('aria-label') ?? one.labels?.[0]?.innerText ?? one.innerText ?? ''"
            )
            .Replace('\n', ' ')
            .TrimStart('0', '1', '2', '3', '4', '5', '6', '7', '8', '9', ' ')
            .StartsWith(words, StringComparison.Ordinal);

    private void Tab(string key, string words, string[] keys)
    {
        for (var presses = 0; !Focused(words); presses++)
        {
            presses.ShouldBeLessThan(120, $"“{words}” is not reached by the tabulator");
            Browser.SwitchTo().ActiveElement().SendKeys(key);
        }

        Keyboard(keys);
    }

    /// <summary>Opens a page as the owner, who has signed in already.</summary>
    public void ComeIn(BrowserApp app, string path = "/")
    {
        foreach (var (name, value) in app.Owner.Cookies)
            Browser.ExecuteCdpCommand(
                "Network.setCookie",
                new Dictionary<string, object?>
                {
                    ["name"] = name,
                    ["value"] = value,
                    ["url"] = app.Address,
                    ["httpOnly"] = true,
                }
            );
        Open(app.Address + path);
        Find("//nav[@aria-label='Stations']");
    }

    public void GiveSignIn()
    {
        Type("E-mail", "maren@ochrewren.example");
        Type("Password", "the-lamp-is-on");
        Press("Sign in");
    }

    /// <summary>Waits until words can be read that could not be read before the last thing that was done.</summary>
    public void Sees(string words)
    {
        if (_before.Contains(words, StringComparison.OrdinalIgnoreCase))
            throw new InvalidOperationException(
                $"“{words}” stood there before, so that seeing it proves nothing. At {Browser.Url} it said:\n{_before}"
            );
        Wait($"sees “{words}”", () => Text.Contains(words, StringComparison.OrdinalIgnoreCase));
    }

    /// <summary>Waits until words that were there are gone.</summary>
    public void SeesNoMore(string words) =>
        Wait($"no longer sees “{words}”", () => !Text.Contains(words, StringComparison.OrdinalIgnoreCase));

    /// <summary>Words that stood there before stand there still.</summary>
    public void StillSees(string words)
    {
        _before.ShouldContain(words, Case.Insensitive);
        Text.ShouldContain(words, Case.Insensitive);
    }

    public string Text => Run<string>("return document.body?.innerText ?? ''");

    /// <summary>Presses a button or follows a link with exactly these words.</summary>
    public void Press(string words) =>
        Click($"//*[(self::button or self::a or @role='menuitem') and (normalize-space()={Quote(words)} or @aria-label={Quote(words)})]");

    /// <summary>Follows the first link that holds the words.</summary>
    public void Follow(string words) => Click($"//a[contains(normalize-space(), {Quote(words)})]");

    public void Choose(string option) => Click($"//label[normalize-space()={Quote(option)}]");

    /// <summary>Presses keys where the focus is.</summary>
    public void Keyboard(params string[] keys)
    {
        _before = Text;
        foreach (var key in keys)
            Browser.SwitchTo().ActiveElement().SendKeys(key);
    }

    public IWebElement Field(string label) =>
        Find(
            $"//*[@role='textbox'][@aria-labelledby=//*[normalize-space()={Quote(label)}]/@id]"
                + $" | //*[self::input or self::textarea][@aria-label={Quote(label)} or ancestor::label[starts-with(normalize-space(), {Quote(label)})] or @id=//label[starts-with(normalize-space(), {Quote(label)})]/@for]"
        );

    public void Type(string label, string words)
    {
        _before = Text;
        Wait(
            $"types into “{label}”",
            () =>
            {
                Field(label).SendKeys(Keys.Control + "a" + Keys.Null + words);
                return true;
            }
        );
    }

    /// <summary>The same in one part of a desk, named as the schema of forms names it.</summary>
    public void Type(string label, string words, string part)
    {
        _before = Text;
        Wait(
            $"types into “{label}” of {part}",
            () =>
            {
                Find(
                        $"//*[@data-member='{part}']//*[self::input or self::textarea][ancestor::label[starts-with(normalize-space(), {Quote(label)})]]"
                    )
                    .SendKeys(Keys.Control + "a" + Keys.Null + words);
                return true;
            }
        );
    }

    /// <summary>Picks an option of a list that is called so by a screen reader.</summary>
    public void Choose(string label, string option) =>
        Click($"//select[@aria-label={Quote(label)}]//option[normalize-space()={Quote(option)}]");

    /// <summary>Picks an option of a list that folds out.</summary>
    public void Pick(string label, string option) =>
        Click($"//select[ancestor::label[starts-with(normalize-space(), {Quote(label)})]]//option[normalize-space()={Quote(option)}]");

    public void Click(string xpath)
    {
        _before = Text;
        Wait(
            $"clicks {xpath}",
            () =>
            {
                Find(xpath).Click();
                return true;
            }
        );
    }

    public IWebElement Find(string xpath) =>
        _patience.Until(driver => driver.FindElements(By.XPath(xpath)).FirstOrDefault(found => found.Displayed))
        ?? throw new NoSuchElementException(xpath);

    /// <summary>Looks into a frame, in which nothing was seen before.</summary>
    public void Enter(string frameXPath)
    {
        _before = "";
        Browser.SwitchTo().Frame(Find(frameXPath));
    }

    /// <summary>Looks at the page around the frame again.</summary>
    public void Leave()
    {
        Browser.SwitchTo().DefaultContent();
        _before = Text;
    }

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
    public void FindsNothingInTheWay() => Axed("html", "serious", "critical").ShouldBeEmpty($"at {Browser.Url}");

    /// <summary>The same, and nothing smaller either (axe: every rule and every impact).</summary>
    /// <param name="within">The part that is looked at, as CSS selects it; what stands around it has been looked at before.</param>
    public void FindsNothingAtAll(string within = "html") =>
        Axed(within, "minor", "moderate", "serious", "critical").ShouldBeEmpty($"at {Browser.Url}");

    private string[] Axed(string within, params string[] impacts)
    {
        if (!Run<bool>("return 'axe' in window"))
            Browser.ExecuteScript(Axe);
        var found = (string)
            Browser.ExecuteAsyncScript(
                """
                const [within, impacts, done] = arguments;
                axe.run(within === 'html' ? document : document.querySelector(within), { iframes: false, resultTypes: ['violations'] }).then(result => done(JSON.stringify(result.violations
                  .filter(one => impacts.includes(one.impact))
                  .map(one => one.id + ': ' + one.nodes.map(node => node.html).join(' | ')))));
                """,
                within,
                impacts
            )!;
        return JsonSerializer.Deserialize<string[]>(found)!;
    }

    /// <summary>The test makes the program refuse something, with an answer of this status, or cuts it off.</summary>
    /// <param name="words">What the console of the browser says of it: "status of 409".</param>
    public void WillBeRefused(params string[] words) => _announced.AddRange(words);

    /// <summary>Nothing was asked of any host but these.</summary>
    public void LeavesNoTraceElsewhere(params string[] hosts)
    {
        var asked = Run<IReadOnlyCollection<object>>("return performance.getEntriesByType('resource').map(entry => entry.name)")
            .Cast<string>();
        foreach (var address in asked)
            hosts.ShouldContain(
                host => address.StartsWith(host, StringComparison.Ordinal) || address.StartsWith("data:", StringComparison.Ordinal),
                address
            );
    }

    /// <summary>Fails the test when anything stands in the console that it did not announce.</summary>
    public void Dispose()
    {
        List<string> wrong;
        try
        {
            wrong =
            [
                .. Browser
                    .Manage()
                    .Logs.GetLog("browser")
                    .Where(entry =>
                        entry.Level == LogLevel.Severe
                        && !_announced.Exists(words => entry.Message.Contains(words, StringComparison.Ordinal))
                    )
                    .Select(entry => entry.Message),
            ];
        }
        finally
        {
            _lent.Dispose();
        }

        if (wrong.Count > 0)
            throw new InvalidOperationException($"The console says what the test did not announce:\n{string.Join('\n', wrong.Distinct())}");
    }

    private static string Quote(string words) => words.Contains('\'', StringComparison.Ordinal) ? $"\"{words}\"" : $"'{words}'";

    private static string ReadAxe([CallerFilePath] string here = "") =>
        File.ReadAllText(Path.Combine(Path.GetDirectoryName(here)!, "../../src/PorchLight.Ui/node_modules/axe-core/axe.min.js"));
}
