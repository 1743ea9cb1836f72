using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Server.Demo;

namespace PorchLight.Bench;

/// <summary>
/// Opens the workbench of a form of a hundred questions and types in it. The times are the browser's own: from asking for the page
/// until every line stands there, and by its event timing from each key until what it changed is painted.
/// </summary>
internal static class WorkbenchBench
{
    private const int Questions = 100;
    private const int Letters = 120;
    private const double Unreported = 16;

    private const string Watch = """
        window.timings = [];
        new PerformanceObserver(list => window.timings.push(...list.getEntries()
          .filter(one => one.name === 'keydown' || one.name === 'input' || one.name === 'keypress')
          .map(one => [one.interactionId || one.startTime, one.duration])))
          .observe({ type: 'event', durationThreshold: 16, buffered: true });
        new MutationObserver((_, watch) => {
          if (document.querySelectorAll('[data-line]').length < 100) return;
          performance.mark('usable');
          watch.disconnect();
        }).observe(document, { childList: true, subtree: true });
        """;

    /// <summary>A hundred questions on ten pages, every third with a condition.</summary>
    public static FormContent Content { get; } =
        new(
            "A hundred questions",
            "",
            [
                .. Enumerable
                    .Range(0, Questions / 10)
                    .Select(page => new Page(
                        $"p{page}",
                        $"Page {page + 1}",
                        [.. Enumerable.Range(0, 10).Select(index => Ask((page * 10) + index))]
                    )),
            ],
            [],
            new SendOff("end", "Thank you", "Thank you.")
        );

    /// <summary>
    /// The openings in milliseconds, smallest first, and the times of keys, smallest first; those too short to be reported count
    /// as 16.
    /// </summary>
    public static (List<double> Openings, List<double> Keys) Measure(string address, string form)
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/lib/chromium/chromium-headless-shell" };
        options.AddArguments("--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--window-size=1280,800");
        using var browser = new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options);
        browser.Navigate().GoToUrl(address);
        Wait(() => browser.FindElements(By.CssSelector("input[type=email]")).FirstOrDefault()).SendKeys(DemoBusiness.OwnerMail);
        browser.FindElement(By.CssSelector("input[type=password]")).SendKeys(DemoBusiness.Password);
        browser.FindElement(By.CssSelector("button[type=submit]")).Click();
        Wait(() => browser.FindElements(By.TagName("nav")).FirstOrDefault());
        Tell(browser, "Page.addScriptToEvaluateOnNewDocument", ("source", Watch));
        var openings = Enumerable.Range(0, 6).Select(_ => Open(browser, $"{address}/forms/{form}?at=q50")).Skip(1).Order().ToList();

        var box = Wait(() => browser.FindElements(By.CssSelector("[role=textbox]")).FirstOrDefault());
        box.Click();
        foreach (var letter in Enumerable.Range(0, Letters).Select(n => (char)('a' + (n % 26))))
            box.SendKeys(letter.ToString());
        Thread.Sleep(1500);
        // A page that has not stored everything yet would hold the browser open.
        Wait(() => browser.FindElements(By.XPath("//*[@role='status'][starts-with(normalize-space(), 'Saved')]")).FirstOrDefault());
        var reported = ((IReadOnlyCollection<object>)browser.ExecuteScript("return window.timings")!)
            .Cast<IReadOnlyCollection<object>>()
            .GroupBy(one => one.First().ToString(), one => Convert.ToDouble(one.Last(), CultureInfo.InvariantCulture))
            .Select(one => one.Max())
            .ToList();
        browser.Navigate().GoToUrl("about:blank");
        var quick = Enumerable.Repeat(Unreported, Math.Max(0, Letters - reported.Count));
        return (openings, [.. reported.Concat(quick).Order()]);
    }

    private static double Open(ChromeDriver browser, string address)
    {
        browser.Navigate().GoToUrl(address);
        return Wait(() =>
            browser.ExecuteScript("return performance.getEntriesByName('usable')[0]?.startTime ?? null") is { } at
                ? (double?)Convert.ToDouble(at, CultureInfo.InvariantCulture)
                : null
        )!.Value;
    }

    private static T Wait<T>(Func<T?> found)
    {
        for (var tries = 0; tries < 400; tries++)
        {
            if (found() is { } there)
                return there;
            Thread.Sleep(25);
        }

        throw new InvalidOperationException("The workbench did not come up.");
    }

    private static Question Ask(int number) =>
        (number % 3) switch
        {
            0 => new Question($"q{number}", $"Is question {number} one of yes and no?", new YesNoKind()),
            1 => new Question(
                $"q{number}",
                $"What do you choose in question {number}?",
                new ChoiceKind([new Option("a", "One"), new Option("b", "Two"), new Option("c", "Three")])
            )
            {
                AskedOnlyWhen = new IsCondition(new AnswerTo($"q{number - 1}"), "yes"),
            },
            _ => new Question($"q{number}", $"What should we know about question {number}?", new LongTextKind()),
        };

    private static void Tell(ChromeDriver browser, string command, params (string Name, object Value)[] parameters) =>
        browser.ExecuteCdpCommand(command, parameters.ToDictionary(one => one.Name, one => (object?)one.Value));
}
