import { useEffect, useRef, useState, type FormEvent } from "react";
import { Problem, sentenceOf } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { box, brandButton, quietButton } from "../controls/control";
import {
  cancel,
  move,
  showTimes,
  type BookedView,
  type BookingTable,
  type BookingTime,
  type MeetingPageView,
} from "./client";
import { Nearest } from "./Nearest";
import { Times } from "./Times";

interface Props {
  token: string;
  view: MeetingPageView;
  meeting: BookedView;
  /** Whether it was booked or changed just now. */
  isFresh: boolean;
  onChanged: (view: MeetingPageView) => void;
}

const titles: Record<BookedView["state"], string> = {
  booked: "It’s booked",
  cancelled: "This meeting is cancelled",
  missed: "We missed you",
};

/** What was booked, with how to move and cancel it. */
export function Booked({ token, view, meeting, isFresh, onChanged }: Props) {
  const [doing, setDoing] = useState<"move" | "cancel" | null>(null);
  const [wasMoved, setMoved] = useState(false);
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (isFresh) title.current?.focus();
  }, [isFresh, meeting]);
  const done = (next: MeetingPageView) => {
    setMoved(doing === "move");
    setDoing(null);
    onChanged(next);
  };
  return (
    <>
      <p className="mb-1 text-slate">{view.business}</p>
      <h1 ref={title} tabIndex={-1} className="mb-4 text-title outline-none">
        {wasMoved && meeting.state === "booked" ? "It’s moved" : titles[meeting.state]}
      </h1>
      <section className="rounded-soft bg-card p-5 shadow-soft" aria-label={view.title}>
        <h2 className="mb-1 text-lead">{view.title}</h2>
        <p className={meeting.state === "cancelled" ? "line-through" : "font-semibold"}>{meeting.when}</p>
        <p className="wrap-anywhere">{meeting.where}</p>
        {meeting.reason && <p className="mt-3 border-l-4 border-edge pl-3">{meeting.reason}</p>}
        {meeting.state === "booked" && isFresh && (
          <p className="mt-3">We’ve sent you all of this by mail, with an entry for your calendar.</p>
        )}
        {meeting.state === "booked" && (
          <p className="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
            <a className={quietButton} href={`/public/meetings/${token}/entry.ics`}>
              Add to your calendar
            </a>
            {!meeting.locked && doing === null && (
              <>
                <button type="button" className={quietButton} onClick={() => setDoing("move")}>
                  Move
                </button>
                <button type="button" className={quietButton} onClick={() => setDoing("cancel")}>
                  Cancel
                </button>
              </>
            )}
          </p>
        )}
        {meeting.state === "booked" && (
          <p className="mt-2 text-note text-slate">
            {meeting.locked ?? `You can move or cancel it until ${meeting.until}.`}
            {meeting.locked && (
              <>
                {" "}
                <a className="underline" href={`mailto:${view.businessMail}`}>
                  {view.businessMail}
                </a>
              </>
            )}
          </p>
        )}
      </section>
      {doing === "move" && (
        <Move token={token} view={view} meeting={meeting} onDone={done} onKeep={() => setDoing(null)} />
      )}
      {doing === "cancel" && <Cancel token={token} view={view} onDone={done} onKeep={() => setDoing(null)} />}
    </>
  );
}

interface ChangeProps {
  token: string;
  view: MeetingPageView;
  onDone: (view: MeetingPageView) => void;
  onKeep: () => void;
}

function Move({ token, view, meeting, onDone, onKeep }: ChangeProps & { meeting: BookedView }) {
  const [zone, setZone] = useState(view.zone);
  const [times, setTimes] = useState<{ zone: string; table: BookingTable } | null>(null);
  const [chosen, setChosen] = useState<BookingTime | null>(null);
  const [reason, setReason] = useState("");
  const [failure, setFailure] = useState<unknown>(null);
  const [isSending, setSending] = useState(false);
  const sendKey = useSendKey();
  const head = useRef<HTMLDivElement>(null);
  useEffect(() => head.current?.focus(), []);
  useEffect(() => {
    let isOver = false;
    showTimes(token, zone).then(
      (table) => !isOver && setTimes({ zone, table }),
      (error: unknown) => !isOver && setFailure(error),
    );
    return () => {
      isOver = true;
    };
  }, [token, zone]);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!chosen || isSending) return;
    const body = { start: chosen.start, zone, reason };
    setSending(true);
    move(token, body, sendKey.for(body))
      .then(
        (next) => {
          sendKey.done();
          onDone(next);
        },
        (error: unknown) => {
          setFailure(error);
          if (!(error instanceof Problem && error.nearest.length > 0)) return;
          setChosen(null);
          return showTimes(token, zone).then((table) => setTimes({ zone, table }));
        },
      )
      .catch((error: unknown) => setFailure(error))
      .finally(() => setSending(false));
  };
  return (
    <form onSubmit={submit} className="mt-4">
      <div ref={head} tabIndex={-1} className="outline-none" aria-label="Choose another time" role="group">
        {times ? (
          <Times
            times={times.table}
            isWaiting={times.zone !== zone}
            chosen={chosen}
            onChoose={setChosen}
            zone={zone}
            onZone={(next) => {
              setChosen(null);
              setZone(next);
            }}
          />
        ) : (
          !failure && (
            <p role="status" className="text-slate">
              One moment …
            </p>
          )
        )}
      </div>
      {failure instanceof Problem && failure.nearest.length > 0 ? (
        <Nearest problem={failure} chosen={chosen} onChoose={setChosen} />
      ) : (
        !!failure && (
          <p role="alert" className="mt-3 font-semibold text-brick">
            {sentenceOf(failure)}
          </p>
        )
      )}
      {chosen && (
        <div className="mt-4 rounded-soft bg-card p-4 shadow-soft">
          <ReasonBox value={reason} onChange={setReason} />
        </div>
      )}
      <div className="sticky bottom-2 mt-4 grid gap-3 rounded-soft border border-edge bg-glow p-4 shadow-panel">
        {chosen ? (
          <p aria-live="polite">
            <strong>{chosen.says}</strong>
            <span className="block text-note text-slate">Instead of {meeting.when}.</span>
          </p>
        ) : (
          <p>Choose a new time. The old one stays yours until then.</p>
        )}
        <p className="flex flex-wrap gap-3">
          {chosen && (
            <button type="submit" className={brandButton} aria-disabled={isSending}>
              {isSending ? "One moment …" : "Move it"}
            </button>
          )}
          <button type="button" className={quietButton} onClick={onKeep}>
            Keep the old time
          </button>
        </p>
      </div>
    </form>
  );
}

function Cancel({ token, view, onDone, onKeep }: ChangeProps) {
  const [reason, setReason] = useState("");
  const [failure, setFailure] = useState<unknown>(null);
  const [isSending, setSending] = useState(false);
  const sendKey = useSendKey();
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => head.current?.focus(), []);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (isSending) return;
    const body = { zone: view.zone, reason };
    setSending(true);
    cancel(token, body, sendKey.for(body))
      .then(
        (next) => {
          sendKey.done();
          onDone(next);
        },
        (error: unknown) => setFailure(error),
      )
      .finally(() => setSending(false));
  };
  return (
    <form onSubmit={submit} className="mt-4 grid gap-3 rounded-soft border border-edge bg-glow p-4">
      <h2 ref={head} tabIndex={-1} className="text-lead outline-none">
        Cancel this meeting?
      </h2>
      <ReasonBox value={reason} onChange={setReason} />
      {!!failure && (
        <p role="alert" className="font-semibold text-brick">
          {sentenceOf(failure)}
        </p>
      )}
      <p className="flex flex-wrap gap-3">
        <button type="submit" className={brandButton} aria-disabled={isSending}>
          {isSending ? "One moment …" : "Cancel the meeting"}
        </button>
        <button type="button" className={quietButton} onClick={onKeep}>
          Keep it
        </button>
      </p>
    </form>
  );
}

function ReasonBox({ value, onChange }: { value: string; onChange: (reason: string) => void }) {
  return (
    <label className="block">
      <span className="mb-1 block font-semibold">
        A word to us <span className="font-normal text-slate">optional</span>
      </span>
      <textarea className={box} rows={2} value={value} onChange={({ target }) => onChange(target.value)} />
    </label>
  );
}
