using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Browser.Tests;

/// <summary>A form that asks in every way there is.</summary>
internal static class EveryKind
{
    /// <param name="list">A list with the columns Colour and Code.</param>
    /// <param name="picture">A stored picture.</param>
    /// <param name="video">A stored video.</param>
    public static FormContent Form(Guid list, Guid picture, Guid video) =>
        new(
            "Every kind of question",
            "Nothing is left out.",
            [
                new Page(
                    "words",
                    "Words and numbers",
                    [
                        new Heading("head", "To begin with"),
                        new Passage("pass", "A few lines\nof plain text."),
                        Ask("short", "A short text", new ShortTextKind(40)) with
                        {
                            Help = "One line.",
                            Placeholder = "Bread",
                        },
                        Ask("long", "A long text", new LongTextKind(400)),
                        Ask("email", "An e-mail address", new EmailKind()) with
                        {
                            Width = ItemWidth.Half,
                            LandsIn = new SetField(BuiltInFields.Email.Key),
                        },
                        Ask("phone", "A phone number", new PhoneKind()) with
                        {
                            Width = ItemWidth.Half,
                        },
                        Ask("site", "A web address", new WebAddressKind()) with
                        {
                            Width = ItemWidth.Third,
                        },
                        Ask("number", "A number", new NumberKind(1, 9, "m")) with
                        {
                            Width = ItemWidth.Third,
                        },
                        Ask("money", "An amount", new MoneyKind("EUR", 1)) with
                        {
                            Width = ItemWidth.Third,
                        },
                        new Divider("line"),
                    ]
                ),
                new Page(
                    "choices",
                    "Choices",
                    [
                        Ask("yes", "Yes or no", new YesNoKind()),
                        Ask(
                            "radio",
                            "One of these",
                            new ChoiceKind([
                                new Option("a", "First") { Explanation = "The usual", Picture = picture },
                                new Option("b", "Another") { OwnWords = true },
                                new Option("c", "I don't know yet", Unsure: true),
                            ])
                        ),
                        Ask(
                            "drop",
                            "One from a drop-down",
                            new ChoiceKind([new Option("a", "Apple"), new Option("b", "Pear")]) { DropDown = true }
                        ),
                        Ask(
                            "several",
                            "Any of these",
                            new ChoiceKind(
                                [
                                    new Option("x", "Wires"),
                                    new Option("y", "Ivy"),
                                    new Option("none", "None of these") { NoneOfThese = true },
                                ],
                                Several: true
                            )
                        ),
                        Ask("scale", "From one to five", new ScaleKind(1, 5, "Hardly", "Very much")),
                        Ask(
                            "service",
                            "A service",
                            new ChoiceKind([new Option("unsure", "Not sure", Unsure: true)]) { From = OptionList.Services }
                        ),
                    ]
                ),
                new Page(
                    "days",
                    "Days and things",
                    [
                        Ask("day", "A day", new DateKind()) with
                        {
                            Width = ItemWidth.Half,
                        },
                        Ask("range", "Some days", new DateRangeKind(OrMonth: true)),
                        Ask("address", "An address", new AddressKind()),
                        Ask("lookup", "From a list", new LookUpKind(list, ["Colour", "Code"])),
                        Ask("photos", "Some files", new FilesKind(3)),
                        new Picture("pic", picture, "Two letters in gold"),
                        new Video("film", video, "A brush at work"),
                        new Download("take", picture, "A picture to take away"),
                    ]
                ),
                new Page(
                    "people",
                    "People and agreements",
                    [
                        Ask("name", "A name", new PersonNameKind()) with
                        {
                            LandsIn = new SetField(BuiltInFields.Name.Key),
                        },
                        Ask(
                            "signs",
                            "Some rows",
                            new ListKind(
                                [Ask("says", "What it says", new ShortTextKind()), Ask("wide", "How wide", new NumberKind(1, 9, "m"))],
                                "sign",
                                1,
                                4
                            )
                        ),
                        Ask("painters", "Some people", new PeopleKind("painter", "born", [], "painter", 1, 4)),
                        new Question("old", "How many signs", new WorkedOutKind(new CountRows("signs"))),
                        Ask("keep", "Your answers", new ConsentKind("You may keep these answers.")),
                        new Question("news", "News", new AdvertisingKind("You may send me news.")),
                        Ask("sign", "Your signature", new SignatureKind("All of this is true.", ForOthers: true)),
                        new Question("tag", "Tag", new HiddenKind("utm_source")),
                    ]
                ),
            ],
            [],
            new SendOff("end", "Thank you, {answer:name|all of you}", "That was all.")
        )
        {
            Review = true,
        };

    private static Question Ask(string key, string wording, QuestionKind kind) => new(key, wording, kind) { Required = true };
}
