namespace PorchLight.Core.Brand;

/// <summary>How round the corners of boxes and buttons are.</summary>
public enum Corners
{
    /// <summary>A little round.</summary>
    Soft,

    /// <summary>Not at all.</summary>
    Square,

    /// <summary>Very.</summary>
    Round,
}

/// <summary>How close things stand.</summary>
public enum Density
{
    /// <summary>With room around them.</summary>
    Roomy,

    /// <summary>Close together.</summary>
    Close,
}

/// <summary>How wide a form grows where there is room.</summary>
public enum FormWidth
{
    /// <summary>As wide as a page of a book.</summary>
    Usual,

    /// <summary>Narrower.</summary>
    Narrow,

    /// <summary>Wider.</summary>
    Wide,
}

/// <summary>What a form is written on.</summary>
public enum Paper
{
    /// <summary>Dark words on a light ground.</summary>
    Light,

    /// <summary>Light words on a dark ground.</summary>
    Dark,
}

/// <summary>What is measured of an accent.</summary>
/// <param name="Accent">The accent as it would be shown.</param>
/// <param name="Ratio">Its contrast against the paper, from 1 to 21.</param>
/// <param name="Nearest">The nearest accent that can be read; null when this one can.</param>
public sealed record AccentContrast(string Accent, double Ratio, string? Nearest);

/// <summary>How one form looks where it is unlike the others of the business. What is null is as the business has it.</summary>
public sealed record FormLook
{
    /// <summary>The contrast text needs (WCAG 2.2, 1.4.3).</summary>
    private const double Readable = 4.5;

    private const int LongestButtonWord = 40;

    /// <summary>The identifier of a stored picture that stands at the top, or null for the business's logo.</summary>
    public Guid? Logo { get; init; }

    /// <summary>The colour of buttons, links and marks, as #rrggbb.</summary>
    public string? Accent { get; init; }

    /// <summary>The colour around the page, as #rrggbb; nothing stands on it.</summary>
    public string? Backdrop { get; init; }

    /// <summary>The face of all text.</summary>
    public Typeface? Typeface { get; init; }

    /// <summary>How round corners are.</summary>
    public Corners Corners { get; init; }

    /// <summary>How close things stand.</summary>
    public Density Density { get; init; }

    /// <summary>How wide it grows.</summary>
    public FormWidth Width { get; init; }

    /// <summary>What it is written on.</summary>
    public Paper Paper { get; init; }

    /// <summary>What the button says that sends the answers; null for "Send".</summary>
    public string? ButtonWord { get; init; }

    /// <summary>What keeps a form that looks so from being published, as sentences; inherited colours are never a reason.</summary>
    public IEnumerable<string> Faults()
    {
        if (Accent is { } accent && !Contrast.IsColour(accent))
            yield return "The accent is not a colour. Write one like #2a2f5b.";
        else if (Accent is not null && Measure(BrandLook.Plain) is { Nearest: { } nearest } measured)
            yield return $"The accent {Accent} cannot be read on this paper: {measured.Ratio:0.0} to 1, and {Readable} is needed. The nearest that can is {nearest}.";
        if (Backdrop is { } backdrop && !Contrast.IsColour(backdrop))
            yield return "The colour around the page is not a colour. Write one like #f2f3f8.";
        if (ButtonWord is { Length: > LongestButtonWord })
            yield return $"The word of the button can have up to {LongestButtonWord} characters.";
    }

    /// <summary>How well the accent can be read on the paper.</summary>
    /// <param name="brand">How the business looks; its accent counts where the form has none that is a colour.</param>
    public AccentContrast Measure(BrandLook brand)
    {
        var accent =
            Contrast.IsColour(Accent) ? Accent!
            : Contrast.IsColour(brand.Accent) ? brand.Accent
            : BrandLook.Plain.Accent;
        var paper = PaperColour(Paper);
        var nearest = Contrast.Nearest(accent, paper, Readable)!;
        return new AccentContrast(accent, Contrast.Ratio(accent, paper), nearest == accent ? null : nearest);
    }

    /// <summary>
    /// How the form is shown. The business's accent, which was chosen for light paper, gives way to the nearest that can be read on dark
    /// paper; so does, while a form is built, an accent of its own.
    /// </summary>
    /// <param name="look">How the form is unlike the others, or null for not at all.</param>
    /// <param name="brand">How the business looks.</param>
    public static ShownLook Over(FormLook? look, BrandLook brand)
    {
        var own = look ?? new FormLook();
        var accent = own.Measure(brand);
        return new ShownLook(
            accent.Nearest ?? accent.Accent,
            Contrast.IsColour(own.Backdrop) ? own.Backdrop! : brand.Backdrop,
            own.Typeface ?? brand.Typeface,
            own.Corners,
            own.Density,
            own.Width,
            own.Paper,
            string.IsNullOrWhiteSpace(own.ButtonWord) ? "Send" : own.ButtonWord.Trim()
        );
    }

    /// <summary>The colour of a paper, as the public page paints it.</summary>
    private static string PaperColour(Paper paper) => paper == Paper.Dark ? "#1d2033" : "#ffffff";
}

/// <summary>How a form is shown, everything decided.</summary>
/// <param name="Accent">The colour of buttons, links and marks, as #rrggbb; it can be read on the paper.</param>
/// <param name="Backdrop">The colour around the page, as #rrggbb.</param>
/// <param name="Typeface">The face of all text.</param>
/// <param name="Corners">How round corners are.</param>
/// <param name="Density">How close things stand.</param>
/// <param name="Width">How wide it grows.</param>
/// <param name="Paper">What it is written on.</param>
/// <param name="ButtonWord">What the button says that sends the answers.</param>
public sealed record ShownLook(
    string Accent,
    string Backdrop,
    Typeface Typeface,
    Corners Corners,
    Density Density,
    FormWidth Width,
    Paper Paper,
    string ButtonWord
);
