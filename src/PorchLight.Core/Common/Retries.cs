using NodaTime;

namespace PorchLight.Core.Common;

/// <summary>How what has failed is tried again.</summary>
public static class Retries
{
    /// <summary>After so many tries a person has to look.</summary>
    public const int Most = 8;

    /// <summary>The pause before the next try: one minute, two, four and so on; null after the eighth, when a person has to look.</summary>
    /// <param name="tries">How many tries there were; at least 1.</param>
    public static Duration? PauseAfter(int tries) => tries >= Most ? null : Duration.FromMinutes(1 << (tries - 1));
}
