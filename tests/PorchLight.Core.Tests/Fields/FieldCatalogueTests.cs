using PorchLight.Core.Fields;

namespace PorchLight.Core.Tests.Fields;

public sealed class FieldCatalogueTests
{
    private static readonly FieldCatalogue Fields = new([
        .. BuiltInFields.All,
        new Field("client.coffee-order", "Coffee order", FieldKind.Text),
    ]);

    [Fact]
    public void Every_built_in_field_can_be_kept_as_it_is_and_none_has_the_key_of_another()
    {
        BuiltInFields.All.ShouldAllBe(field => FieldCatalogue.BuiltIn.Check(field).Count == 0);
        BuiltInFields.All.Select(field => field.Key).ShouldBeUnique();
        BuiltInFields.All.ShouldAllBe(field => field.Key.StartsWith(field.Scope == RecordScope.Client ? "client." : "project."));
    }

    [Fact]
    public void A_new_field_gets_a_key_of_its_words_that_nobody_has()
    {
        Fields.NewKey(RecordScope.Client, "Café au lait?").ShouldBe("client.cafe-au-lait");
        Fields.NewKey(RecordScope.Client, "Coffee order").ShouldBe("client.coffee-order-2");
        Fields.NewKey(RecordScope.Project, "Coffee order").ShouldBe("project.coffee-order", "a project is not its client");
        Fields.NewKey(RecordScope.Project, "???").ShouldBe("project.field");
    }

    [Theory]
    [InlineData("", FieldKind.Text, "label")]
    [InlineData(" coffee ORDER ", FieldKind.Text, "label")]
    [InlineData("Colour", FieldKind.OneOf, "options")]
    [InlineData("Painters", FieldKind.Rows, "columns")]
    public void What_cannot_be_kept_is_said_beside_its_place(string label, FieldKind kind, string place) =>
        Fields.Check(new Field("client.new", label, kind)).ShouldHaveSingleItem().Place.ShouldBe(place);

    [Fact]
    public void Options_and_columns_belong_to_their_kinds_and_have_names_of_their_own()
    {
        Fields
            .Check(new Field("client.new", "Colour", FieldKind.OneOf) { Options = ["Ochre", "ochre "] })
            .Single()
            .Place.ShouldBe("options");
        Fields.Check(new Field("client.new", "Colour", FieldKind.Text) { Options = ["Ochre"] }).Single().Place.ShouldBe("options");
        Field Rows(params FieldColumn[] columns) => new("client.new", "Painters", FieldKind.Rows) { Columns = columns };
        Fields.Check(Rows(new FieldColumn("name", "Name", FieldKind.PersonName))).ShouldBeEmpty();
        Fields.Check(Rows(new FieldColumn("a", "Photos", FieldKind.Files))).Single().Place.ShouldBe("columns");
        Fields.Check(Rows(new("a", "Name", FieldKind.Text), new("b", "name", FieldKind.Text))).Single().Place.ShouldBe("columns");
    }

    [Fact]
    public void What_every_business_has_keeps_its_kind_and_what_clients_are_known_by_stays()
    {
        Fields.Check(BuiltInFields.Phone with { Label = "Mobile" }).ShouldBeEmpty("it can be renamed");
        Fields.Check(BuiltInFields.Phone with { Archived = true }).ShouldBeEmpty();
        Fields.Check(BuiltInFields.Phone with { Kind = FieldKind.Text }).Single().Place.ShouldBe("kind");
        Fields.Check(BuiltInFields.Name with { Archived = true }).Single().Place.ShouldBe("archived");
        Fields.Check(BuiltInFields.Email with { Archived = true }).Single().Place.ShouldBe("archived");
    }

    [Fact]
    public void What_is_put_away_is_not_offered_and_still_found()
    {
        var fields = new FieldCatalogue([BuiltInFields.Name, BuiltInFields.Phone with { Archived = true }]);
        fields.Offered.ShouldBe([BuiltInFields.Name]);
        fields.Find("client.phone").ShouldNotBeNull();
    }
}
