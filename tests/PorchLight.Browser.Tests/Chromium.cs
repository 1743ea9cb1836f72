using OpenQA.Selenium.Chrome;

namespace PorchLight.Browser.Tests;

/// <summary>Debian's Chromium without a window, with a fresh profile, that asks nothing of the network.</summary>
public static class Chromium
{
    /// <summary>Starts a browser; whoever asked for it disposes of it.</summary>
    public static ChromeDriver Start()
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", "--disable-dev-shm-usage", "--window-size=1280,800", "--lang=en-IE",
            "--user-data-dir=" + Directory.CreateTempSubdirectory("porch-light-browser-").FullName);
        options.SetLoggingPreference("browser", OpenQA.Selenium.LogLevel.All);
        return new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options, TimeSpan.FromSeconds(60));
    }

    /// <summary>Gives the page exactly this size, phones included.</summary>
    public static void Resize(this ChromeDriver browser, int width, int height) => browser.ExecuteCdpCommand(
        "Emulation.setDeviceMetricsOverride",
        new Dictionary<string, object?> { ["width"] = width, ["height"] = height, ["deviceScaleFactor"] = 1, ["mobile"] = width < 600 });
}
