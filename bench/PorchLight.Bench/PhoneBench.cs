using System.Globalization;
using OpenQA.Selenium.Chrome;

namespace PorchLight.Bench;

/// <summary>
/// Opens a form as a phone on a slow line does: 150 ms to and fro, 1.6 Mbit/s, the processor slowed four times, nothing kept from
/// before. The time is the browser's own, from asking for the page until its first control stands there.
/// </summary>
internal static class PhoneBench
{
    private const string Watch = """
        new MutationObserver((_, watch) => {
          if (!document.querySelector("main input, main textarea, main select, main button")) return;
          performance.mark("usable");
          watch.disconnect();
        }).observe(document, { childList: true, subtree: true });
        """;

    /// <summary>The times of several openings in milliseconds, smallest first.</summary>
    public static List<double> Open(string address, int times) => [.. Enumerable.Range(0, times).Select(_ => OpenOnce(address)).Order()];

    private static double OpenOnce(string address)
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/lib/chromium/chromium-headless-shell" };
        options.AddArguments("--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--window-size=390,844");
        using var browser = new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options);
        Tell(browser, "Network.enable");
        Tell(browser, "Network.setCacheDisabled", ("cacheDisabled", true));
        Tell(
            browser,
            "Network.emulateNetworkConditions",
            ("offline", false),
            ("latency", 150),
            ("downloadThroughput", 1_600_000 / 8),
            ("uploadThroughput", 750_000 / 8)
        );
        Tell(browser, "Emulation.setCPUThrottlingRate", ("rate", 4));
        Tell(browser, "Page.addScriptToEvaluateOnNewDocument", ("source", Watch));
        browser.Navigate().GoToUrl(address);
        for (var tries = 0; tries < 200; tries++)
        {
            if (browser.ExecuteScript("return performance.getEntriesByName('usable')[0]?.startTime ?? null") is { } at)
                return Convert.ToDouble(at, CultureInfo.InvariantCulture);
            Thread.Sleep(50);
        }

        throw new InvalidOperationException($"No control came up at {address}.");
    }

    private static void Tell(ChromeDriver browser, string command, params (string Name, object Value)[] parameters) =>
        browser.ExecuteCdpCommand(command, parameters.ToDictionary(one => one.Name, one => (object?)one.Value));
}
