import { useEffect, useRef, useState } from "react";
import { Booking } from "./Booking";
import { ownZone, showPage, type MeetingPageView } from "./client";

/** The times a send-off offers; what was taken, once it is. Where nothing can be booked, nothing is shown. */
export function TimesAtSendOff({ receipt }: { receipt: string }) {
  const [view, setView] = useState<MeetingPageView | null>(null);
  const [zone, setZone] = useState(ownZone);
  const booked = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    let isOver = false;
    showPage(receipt, zone).then(
      (next) => !isOver && setView(next),
      () => {
        // Without times the send-off says what happens next all the same.
      },
    );
    return () => {
      isOver = true;
    };
  }, [receipt, zone]);
  if (view?.meeting)
    return (
      <section className="mt-5 rounded-soft border border-edge bg-glow p-4 sm:p-5">
        <h2 ref={booked} tabIndex={-1} className="mb-2 text-lead outline-none">
          {view.title} is booked
        </h2>
        <p className="font-semibold">{view.meeting.when}</p>
        <p>{view.meeting.where}</p>
        <p className="mt-3">
          <a href={view.meeting.address} target="_blank" rel="noreferrer" className="font-semibold underline">
            Add it to your calendar, move it or cancel it
          </a>
        </p>
      </section>
    );
  if (!view?.booking || view.booking.closed) return null;
  return (
    <section className="mt-5">
      <Booking
        isWithin
        token={receipt}
        view={view}
        booking={view.booking}
        zone={zone}
        onZone={setZone}
        onBooked={(next) => {
          setView(next);
          setTimeout(() => booked.current?.focus());
        }}
      />
    </section>
  );
}
