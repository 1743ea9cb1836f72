namespace PorchLight.Browser.Tests;

/// <summary>
/// Runs like the real clock, but began at ten on a working day: whatever the hour and the day of the machine, the business of the
/// demo works, and what it promises is the same.
/// </summary>
internal sealed class OfficeClock : TimeProvider
{
    private readonly long _began = TestClock.Machine.GetTimestamp();

    public static OfficeClock Instance { get; } = new();

    public override DateTimeOffset GetUtcNow() => TestClock.BeginsAtWork + TestClock.Machine.GetElapsedTime(_began);
}
