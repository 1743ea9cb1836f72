using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class MeetingPlaceWordsTests
{
    [Theory]
    [InlineData("By phone or video", MeetingPlaceKind.Phone, MeetingPlaceKind.Video)]
    [InlineData("At our place or your place", MeetingPlaceKind.Ours, MeetingPlaceKind.Theirs)]
    [InlineData("By video, at our place or by phone", MeetingPlaceKind.Video, MeetingPlaceKind.Ours, MeetingPlaceKind.Phone)]
    [InlineData("At your place", MeetingPlaceKind.Theirs)]
    public void What_is_offered_is_said_in_a_line(string said, params MeetingPlaceKind[] kinds) =>
        MeetingPlaceWords.Offer(kinds).ShouldBe(said);

    [Fact]
    public void Whoever_books_is_asked_for_what_only_they_know() =>
        Enum.GetValues<MeetingPlaceKind>()
            .Where(kind => MeetingPlaceWords.Ask(kind) is not null)
            .ShouldBe(Enum.GetValues<MeetingPlaceKind>().Where(MeetingPlace.AsksForMore));
}
