using NodaTime;
using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class MeetingChangeTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly Instant Start = Instant.FromUtc(2026, 12, 3, 15, 0);

    [Fact]
    public void Whoever_booked_can_change_it_up_to_the_last_moment_itself()
    {
        Refuse(Duration.FromHours(4)).ShouldBeNull();
        Refuse(Duration.FromHours(4) - Duration.FromSeconds(1))
            .ShouldBe("This could be moved or cancelled until today 11:00. Please get in touch with us instead.");
        MeetingChange.RefuseTheirs(MeetingState.Booked, Start, 0, Start - Duration.FromSeconds(1), Dublin).ShouldBeNull();
        MeetingChange
            .RefuseTheirs(MeetingState.Booked, Start, 0, Start, Dublin)
            .ShouldBe("This meeting has begun or is over, so it can’t be moved or cancelled any more.");
        MeetingChange
            .RefuseTheirs(MeetingState.Cancelled, Start, 4, Start - Duration.FromDays(3), Dublin)
            .ShouldBe("This meeting has been cancelled.");

        static string? Refuse(Duration before) => MeetingChange.RefuseTheirs(MeetingState.Booked, Start, 4, Start - before, Dublin);
    }

    [Fact]
    public void The_business_can_change_it_until_it_begins_and_say_that_nobody_came_from_then_on()
    {
        MeetingChange.RefuseOurs(MeetingState.Booked, Start, Start - Duration.FromSeconds(1)).ShouldBeNull();
        MeetingChange.RefuseOurs(MeetingState.Booked, Start, Start).ShouldNotBeNull();
        MeetingChange.RefuseMissed(MeetingState.Booked, Start, Start - Duration.FromSeconds(1)).ShouldBe("This meeting is still to come.");
        MeetingChange.RefuseMissed(MeetingState.Booked, Start, Start).ShouldBeNull();
        MeetingChange.RefuseMissed(MeetingState.Missed, Start, Start).ShouldBeNull("so that it can be taken back");
        MeetingChange.RefuseMissed(MeetingState.Cancelled, Start, Start).ShouldBe("This meeting has been cancelled.");
    }

    [Theory]
    [InlineData(0, "You can move or cancel it by a link until it begins.")]
    [InlineData(1, "You can move or cancel it by a link until one hour before.")]
    [InlineData(4, "You can move or cancel it by a link until four hours before.")]
    [InlineData(24, "You can move or cancel it by a link until one day before.")]
    [InlineData(48, "You can move or cancel it by a link until two days before.")]
    [InlineData(36, "You can move or cancel it by a link until 36 hours before.")]
    public void How_long_it_can_be_changed_is_said_in_days_where_they_are_whole(int hours, string said) =>
        MeetingChangeWords.Until(hours).ShouldBe(said);

    [Theory]
    [InlineData(true, WhoMayBook.Anybody, false, true)]
    [InlineData(true, WhoMayBook.PersonalLink, false, false)]
    [InlineData(true, WhoMayBook.PersonalLink, true, true)]
    [InlineData(true, WhoMayBook.AfterSendOff, false, false)]
    [InlineData(true, WhoMayBook.AfterSendOff, true, true)]
    [InlineData(false, WhoMayBook.Anybody, true, false)]
    public void Who_may_book_is_let_in_and_nobody_else(bool isOpen, WhoMayBook who, bool isKnown, bool letIn) =>
        (BookingAccess.Refuse(isOpen, who, isKnown) is null).ShouldBe(letIn);
}
