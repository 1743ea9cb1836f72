namespace PorchLight.Server.Hosting;

/// <summary>
/// The one place where the program asks the machine what time it is. Everything else is given a <see cref="TimeProvider"/>, so that
/// a test, the demo and the real day run by one clock each.
/// </summary>
internal static class MachineClock
{
#pragma warning disable RS0030 // Banned everywhere else.
    public static TimeProvider Instance => TimeProvider.System;
#pragma warning restore RS0030
}
