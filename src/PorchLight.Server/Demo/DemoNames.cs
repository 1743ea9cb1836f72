using PorchLight.Core.Answers;

namespace PorchLight.Server.Demo;

/// <summary>Somebody made up.</summary>
internal sealed record DemoPerson(string Given, string Family, string Email, string Phone, string Town);

/// <summary>What the made-up people of the demo's history are called and say.</summary>
internal static class DemoNames
{
    private static readonly string[] Given =
    [
        "Aoife",
        "Bram",
        "Ciara",
        "Declan",
        "Elin",
        "Fintan",
        "Grete",
        "Hugo",
        "Imelda",
        "Jonas",
        "Kezia",
        "Lorcan",
        "Mairead",
        "Nuno",
        "Orla",
        "Piet",
        "Quentin",
        "Roisin",
        "Sorcha",
        "Tomas",
        "Una",
        "Viktor",
        "Wren",
        "Xenia",
        "Yusuf",
        "Zita",
        "Alma",
        "Bede",
        "Cora",
    ];

    private static readonly string[] Family =
    [
        "Ashgrove",
        "Birdsall",
        "Crannach",
        "Dunmarsh",
        "Eddowes",
        "Farrelly",
        "Gullane",
        "Harkaway",
        "Inishmore",
        "Jessop",
        "Kilbane",
        "Larchwood",
        "Merrigan",
        "Netterfield",
        "Ormsby",
        "Pellworth",
        "Quarrie",
        "Rosscarne",
        "Skerritt",
        "Tullamain",
        "Underhay",
        "Vennard",
        "Whitcombe",
        "Yardley",
        "Zelland",
        "Abbotsway",
        "Brannock",
        "Coldwell",
        "Derravan",
        "Elmhirst",
        "Fennick",
    ];

    private static readonly string[] Trades = ["books", "bakes", "bikes", "coffee", "clinic", "school", "yarns", "gardens"];

    private static readonly string[] Towns =
    [
        "Howth",
        "Bray",
        "Dublin 8",
        "Greystones",
        "Wicklow",
        "Naas",
        "Malahide",
        "Swords",
        "Dalkey",
        "Skerries",
        "Arklow",
        "Drogheda",
    ];

    public static IReadOnlyList<string> Wishes { get; } =
    [
        "The long wall behind the counter.",
        "Our gable end towards the road.",
        "The stairwell, all three floors of it.",
        "A ceiling that has been white for too long.",
        "The yard where people wait.",
        "The wall beside the platform.",
    ];

    public static IReadOnlyList<string> Reasons { get; } =
    [
        "Birds, but friendly ones.",
        "Something that makes the rain look planned.",
        "People should find us by it.",
        "The children have drawn what they want; we can send it.",
        "Letters as large as they will go.",
        "A map of the river, with the mistakes left in.",
    ];

    public static IReadOnlyList<string> Answers { get; } =
    [
        "Thank you for ringing. Tuesday suits us well.",
        "That sounds right. Could you send us a figure?",
        "We talked it over, and the wall is free from the tenth.",
        "Yes please, come and look at it.",
    ];

    public static IReadOnlyList<string> Coffees { get; } =
    ["Flat white, two sugars", "Tea, strong", "Black, no sugar", "Nothing, brings their own", "Cocoa"];

    public static IReadOnlyList<string> Walls { get; } =
    [
        "6.4 by 2.8 m, indoors, lime plaster",
        "11 by 4 m, outdoors, render, faces west",
        "3.2 by 2.6 m, indoors, board",
        "8 by 3 m, outdoors, brick, painted before",
    ];

    public static IReadOnlyList<string> Notes { get; } =
    [
        "Delivery door opens at six. No scaffolding on market Saturdays.",
        "The neighbour has agreed in writing; the letter is with Maren.",
        "Invoice goes to the parent company, not to the shop.",
        "Power is in the yard only. Bring the long cable.",
    ];

    /// <summary>The person of an inquiry; no two share a name, an address or a number but those that are perhaps one.</summary>
    public static DemoPerson Person(int number) =>
        number switch
        {
            // Somebody who asks from two addresses, and two people of one number.
            140 => new DemoPerson("Niamh", "Corrigan", "niamh@corrigan-books.example", Phone(140), "Bray"),
            145 => new DemoPerson("Niamh", "Corigan", "shop@corrigan-books.example", Phone(145), "Bray"),
            134 => new DemoPerson("Oisin", "Dwyer", "oisin@dwyer-yarns.example", Phone(134), "Skerries"),
            148 => new DemoPerson("Grainne", "Dwyer-Holt", "grainne@holt-gardens.example", Phone(134), "Skerries"),
            _ => Usual(Given[number % Given.Length], Family[number * 7 % Family.Length], number),
        };

    /// <summary>Somebody who paints at a workshop.</summary>
    public static PersonNameAnswer Painter(int number) => new(Given[number % Given.Length], Family[number * 3 % Family.Length]);

    /// <summary>A number nobody else of the history has, in the range kept for made-up ones.</summary>
    public static string Phone(int number) => $"+353 20 91{number / 100} {number % 100:00}{number * 7 % 100:00}";

    private static DemoPerson Usual(string given, string family, int number) =>
        new(
            given,
            family,
            $"{given.ToLowerInvariant()}@{family.ToLowerInvariant()}-{Trades[number % Trades.Length]}.example",
            Phone(number),
            Towns[number % Towns.Length]
        );
}
