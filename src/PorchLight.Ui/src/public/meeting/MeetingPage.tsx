import { useEffect, useState } from "react";
import { sentenceOf } from "../../api/problem";
import { dress } from "../dress";
import { Booked } from "./Booked";
import { Booking } from "./Booking";
import { openedHere, ownZone, showPage, type MeetingPageView } from "./client";

/** The page behind the link of a meeting: times to choose from, or what was booked. */
export function MeetingPage({ token }: { token: string }) {
  const [opened, setOpened] = useState<{ token: string; view: MeetingPageView; isFresh: boolean } | null>(() => {
    const view = openedHere();
    return view && { token, view, isFresh: false };
  });
  const [failure, setFailure] = useState<string | null>(null);
  const [zone, setZone] = useState(ownZone);
  const view = opened?.view;
  const isThere = !!view && (!!view.meeting || view.zone === zone);
  useEffect(() => {
    if (isThere) return;
    let isOver = false;
    showPage(token, zone).then(
      (next) => !isOver && setOpened({ token, view: next, isFresh: false }),
      (error: unknown) => !isOver && setFailure(sentenceOf(error)),
    );
    return () => {
      isOver = true;
    };
  }, [token, zone, isThere]);
  useEffect(() => {
    if (!view) return;
    document.title = `${view.title}, ${view.business}`;
    dress(view.look);
  }, [view]);

  return (
    <div className="px-4 py-6 sm:px-6 sm:py-10">
      <main className="mx-auto max-w-[60rem]">
        {view?.logo && <img src={view.logo} alt={view.business} className="mb-3 max-h-16 max-w-60" />}
        {failure ? (
          <section className="rounded-soft bg-card p-6 shadow-soft">
            <h1 className="mb-2 text-title">This page can’t be opened</h1>
            <p>{failure}</p>
          </section>
        ) : !opened ? (
          <p role="status" className="text-slate">
            One moment …
          </p>
        ) : opened.view.meeting ? (
          <Booked
            token={opened.token}
            view={opened.view}
            meeting={opened.view.meeting}
            isFresh={opened.isFresh}
            onChanged={(next) => setOpened({ ...opened, view: next, isFresh: true })}
          />
        ) : (
          <Booking
            token={token}
            view={opened.view}
            booking={opened.view.booking!}
            zone={zone}
            onZone={setZone}
            onBooked={(next) => {
              const address = next.meeting!.address;
              history.pushState(null, "", address);
              setOpened({ token: address.split("/")[2]!, view: next, isFresh: true });
            }}
          />
        )}
      </main>
    </div>
  );
}
