import { useCallback, useEffect, useRef, useState } from "react";
import { sentenceOf } from "../api/problem";
import { FormAccess, Quiet } from "./FormAccess";
import { noteOpened, openedHere, showForm, showReceipt } from "./client";
import type { SentView } from "./views";
import { Cover } from "./Cover";
import { dress } from "./dress";
import { keep, load } from "./localDraft";
import { FormPages } from "./FormPages";
import { closeOnEscape, isEmbedded, isPreviewed, listenToWorkbench, reportHeight, within } from "./embedding";
import { SendOff } from "./SendOff";

/** The public form from the first look to the send-off. */
export function PublicFormPage({ token }: { token: string }) {
  const [door, setDoor] = useState(() => openedHere(token));
  const [receipt] = useState(() => new URLSearchParams(location.search).get("sent"));
  const [failure, setFailure] = useState<string | null>(null);
  const [sent, setSent] = useState<{ view: SentView; fresh: boolean } | null>(null);
  // Who has begun before does not stand before the cover again.
  const [started, setStarted] = useState(() => load(token) !== null);
  const [fromCover, setFromCover] = useState(false);
  const outside = useRef<HTMLDivElement>(null);

  const knock = useCallback(() => {
    const later = new URLSearchParams(location.search).get("later");
    showForm(token, location.search, within ?? (document.referrer || null), later).then(
      (next) => {
        setDoor(next);
        // What cannot be noted now is noted when the form is opened the next time.
        if (next.isFirstLook) noteOpened(token).catch(() => {});
      },
      (error: unknown) => setFailure(sentenceOf(error)),
    );
  }, [token]);
  // While the form is built, it is fetched anew after each change, and stands at the page that is worked on.
  const [shown, setShown] = useState(0);
  useEffect(
    () =>
      listenToWorkbench((page, item) => {
        // What cannot be fetched now, as while the page is left, is fetched with the next change.
        showForm(token, location.search, within, null).then(
          (next) => {
            const filling = load(token);
            const turned = page ?? next.form?.start.pages[0];
            if (filling && turned) keep(token, { ...filling, page: turned });
            setDoor(next);
            setSent(null);
            setStarted(page !== null);
            setShown((before) => before + 1);
            if (item) requestAnimationFrame(() => bringIntoView(item));
          },
          () => {},
        );
      }),
    [token],
  );
  useEffect(() => {
    document.documentElement.toggleAttribute("data-embedded", isEmbedded && !isPreviewed);
    if (!openedHere(token)) knock();
    if (!receipt) return;
    showReceipt(receipt).then(
      (view) => setSent({ view, fresh: false }),
      (error: unknown) => setFailure(sentenceOf(error)),
    );
  }, [knock, token, receipt]);
  useEffect(() => {
    if (!door) return;
    document.title = `${door.title}, ${door.business}`;
    dress(door.look);
  }, [door]);
  useEffect(() => (outside.current ? reportHeight(outside.current) : undefined), []);
  useEffect(closeOnEscape, []);

  const form = door?.form;
  return (
    <div ref={outside} className={isEmbedded ? "p-1" : "px-3 py-6 sm:py-10"}>
      <main className="mx-auto max-w-[var(--form-width,42rem)] rounded-soft bg-card p-5 shadow-soft sm:p-8">
        {door?.logo && <img src={door.logo} alt={door.business} className="mb-3 max-h-16 max-w-60" />}
        {door?.onlyLooking && !isPreviewed && (
          <p role="status" className="mb-5 rounded-soft border-2 border-dashed border-edge p-3 font-semibold">
            You are looking at your working copy. You can answer it to the end; nothing is kept or sent.
          </p>
        )}
        {door?.writesDown && !sent && (
          <p role="status" className="mb-5 rounded-soft border-2 border-dashed border-edge p-3">
            <strong>You write down an inquiry that came {door.writesDown}.</strong> Leave out what you do not know;
            nothing must be answered.{" "}
            <a href="/inquiries" className="underline">
              Back to the inquiries
            </a>
          </p>
        )}
        {door?.lost && !sent && <p className="mb-5 rounded-soft border border-edge p-3">{door.lost}</p>}
        {failure ? (
          <Quiet title="This page could not be opened" note={failure} />
        ) : !door || (receipt && !sent) ? (
          <p role="status" className="text-slate">
            One moment …
          </p>
        ) : sent ? (
          <SendOff sent={sent.view} fresh={sent.fresh} business={door.business} />
        ) : !form ? (
          <FormAccess token={token} door={door} onOpen={knock} />
        ) : form.cover && !started && !form.kept && !door.writesDown ? (
          <Cover
            door={door}
            form={form}
            onStart={() => {
              setStarted(true);
              setFromCover(true);
            }}
          />
        ) : (
          <FormPages
            key={shown}
            token={token}
            door={door}
            form={form}
            fromCover={fromCover}
            onSent={(view) => setSent({ view, fresh: true })}
          />
        )}
      </main>
    </div>
  );
}

/** Scrolls this page, and not the one around it, to a question. */
function bringIntoView(item: string) {
  const place = document.querySelector(`[data-place="${CSS.escape(item)}"]`);
  if (place) scrollTo({ top: scrollY + place.getBoundingClientRect().top - 60 });
}
