using System.Globalization;
using System.Runtime.CompilerServices;
using CsCheck;

namespace PorchLight.Core.Tests;

internal static class Cases
{
    /// <summary>How many random cases each property is tried on: 300, or what <c>./test --long</c> asks for.</summary>
    [ModuleInitializer]
    internal static void SetHowMany() =>
        Check.Iter = long.TryParse(Environment.GetEnvironmentVariable("PORCH_LIGHT_CASES"), CultureInfo.InvariantCulture, out var cases)
            ? cases
            : 300;
}
