using System.Collections.Concurrent;
using OpenQA.Selenium;
using OpenQA.Selenium.BiDi;
using OpenQA.Selenium.BiDi.Browser;
using OpenQA.Selenium.BiDi.BrowsingContext;
using OpenQA.Selenium.Chrome;
using PorchLight.Browser.Tests;

[assembly: AssemblyFixture(typeof(Browsers))]

namespace PorchLight.Browser.Tests;

/// <summary>
/// The browsers of the run. A browser takes longer to start than most tests to run, so each is lent again and again, every
/// time with a user context of its own (cookies, storage and cache; WebDriver BiDi, browser.createUserContext).
/// </summary>
public sealed class Browsers : IDisposable
{
    private static readonly ConcurrentBag<PooledBrowser> Idle = [];

    /// <summary>Lends one that nobody uses, or starts another.</summary>
    internal static BorrowedBrowser Lend() => new(Idle.TryTake(out var kept) ? kept : PooledBrowser.Start());

    internal static void TakeBack(PooledBrowser browser) => Idle.Add(browser);

    public void Dispose()
    {
        while (Idle.TryTake(out var browser))
            browser.Dispose();
    }
}

/// <summary>A running browser with one empty window that stays open.</summary>
internal sealed record PooledBrowser(ChromeDriver Driver, IBiDi BiDi, string Window) : IDisposable
{
    public static PooledBrowser Start()
    {
        var driver = Chromium.Start();
        return new PooledBrowser(driver, Wait(driver.AsBiDiAsync()), driver.CurrentWindowHandle);
    }

    public static T Wait<T>(Task<T> task) => Task.Run(() => task).GetAwaiter().GetResult();

    public void Dispose() => Driver.Dispose();
}

/// <summary>A browser as long as one visitor has it: with windows that know nothing of anybody else's.</summary>
internal sealed class BorrowedBrowser : IDisposable
{
    private readonly PooledBrowser _browser;
    private readonly UserContext _context;

    public BorrowedBrowser(PooledBrowser browser)
    {
        _browser = browser;
        _context = PooledBrowser.Wait(browser.BiDi.Browser.CreateUserContextAsync()).UserContext;
        // What was said to the console before is somebody else's.
        Driver.Manage().Logs.GetLog("browser");
        OpenWindow();
    }

    public ChromeDriver Driver => _browser.Driver;

    /// <summary>Opens a window and goes on in it.</summary>
    public void OpenWindow()
    {
        var window = PooledBrowser.Wait(
            _browser.BiDi.BrowsingContext.CreateAsync(ContextType.Tab, new CreateOptions { UserContext = _context })
        );
        Driver.SwitchTo().Window(window.Context.Id);
    }

    public void Dispose()
    {
        try
        {
            PooledBrowser.Wait(_browser.BiDi.Browser.RemoveUserContextAsync(_context));
            Driver.SwitchTo().Window(_browser.Window);
        }
        catch (Exception broken) when (broken is WebDriverException or BiDiException)
        {
            // A browser that does not do as it is told is not lent again.
            _browser.Dispose();
            return;
        }

        Browsers.TakeBack(_browser);
    }
}
