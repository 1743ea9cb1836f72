import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { orProblem, Problem, type Schemas } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { Button, buttonLook } from "../../kit/Button";
import { boxLook, GrowingText } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Panel, PanelWaiting, Section, TheirWords } from "../../kit/Panel";
import { Failure, Skeleton } from "../../kit/states";
import { FreeTimes, NearestTimes } from "../meetings/FreeTimes";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";
import { useTitle } from "../shell/useTitle";

type View = Schemas["MeetingView"];

/** One meeting: when and where, with whom, what was said, and what can be done with it. */
export function MeetingPanel() {
  const { id = "" } = useParams();
  const query = useQuery(ask(["meeting", id], () => api.GET("/api/meetings/{id}", { params: { path: { id } } })));
  const meeting = query.data;
  useTitle(meeting?.title);
  if (!meeting) return <PanelWaiting title="Meeting" home="/calendar" error={query.error} />;
  return (
    <Panel key={id} title={meeting.title} home="/calendar" under={meeting.when}>
      {meeting.state !== "booked" && (
        <p className="mb-3 border-l-4 border-edge pl-3 font-semibold">
          {meeting.state === "cancelled" ? "This meeting was cancelled." : `${meeting.name} did not come.`}
        </p>
      )}
      {meeting.reason && <TheirWords>{meeting.reason}</TheirWords>}
      <dl className="grid grid-cols-[7rem_minmax(0,1fr)] gap-y-1.5">
        {meeting.theirTime && <Line label="For them">{meeting.theirTime}</Line>}
        <Line label="Where">
          <span className="inline-block first-letter:uppercase">{meeting.where}</span>
        </Line>
        <Line label="With">
          <Link className="underline" to={`/clients/${meeting.clientId}`}>
            {meeting.name}
          </Link>
          , {meeting.email}
        </Line>
        <Line label="Held by">{meeting.hosts ?? "Nobody any more. Move it, and somebody who is free takes it."}</Line>
        {meeting.about && (
          <Line label="About">
            {meeting.inquiryId ? (
              <Link className="underline" to={`/inquiries/${meeting.inquiryId}`}>
                {meeting.about}
              </Link>
            ) : (
              meeting.about
            )}
          </Line>
        )}
        <Line label="Booked">{meeting.booked}</Line>
      </dl>
      <Changes meeting={meeting} />
      {meeting.answers.length > 0 && (
        <Section title="What they told you">
          <dl className="grid gap-2">
            {meeting.answers.map(({ key, question, answer }) => (
              <div key={key}>
                <dt className="text-slate">{question}</dt>
                <dd className="whitespace-pre-wrap">{answer}</dd>
              </div>
            ))}
          </dl>
        </Section>
      )}
      <Section title="What was said">
        <Notes meeting={meeting} />
      </Section>
    </Panel>
  );
}

function Line({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="text-slate">{label}</dt>
      <dd>{children}</dd>
    </>
  );
}

function Notes({ meeting }: { meeting: View }) {
  const edit = useEdit(meeting.notes, (body) =>
    orProblem(api.PUT("/api/meetings/{id}/notes", { params: { path: { id: meeting.id } }, body })),
  );
  return (
    <SavedForm edit={edit} nameOf={() => "What was said"}>
      <GrowingText
        aria-label="What was said"
        className={`${boxLook} min-h-20`}
        value={edit.now.text}
        onChange={(e) => edit.change({ text: e.target.value })}
      />
      {edit.findings.has("text") && <p className="font-semibold text-brick">{edit.findings.get("text")}</p>}
    </SavedForm>
  );
}

/** Moving it, cancelling it, noting that they did not come. */
function Changes({ meeting }: { meeting: View }) {
  const [doing, setDoing] = useState<"move" | "cancel" | null>(null);
  const notice = useNotice();
  const path = { id: meeting.id };
  const note = useMutation({
    mutationFn: (missed: boolean) =>
      orProblem(api.POST("/api/meetings/{id}/missed", { params: { path }, body: { missed } })),
    onSuccess: (_, missed) =>
      missed &&
      notice({
        words: `Noted: ${meeting.name} did not come.`,
        undo: () => orProblem(api.POST("/api/meetings/{id}/missed", { params: { path }, body: { missed: false } })),
      }),
  });
  return (
    <div className="mt-4">
      <div className="flex flex-wrap gap-2">
        {!meeting.locked && (
          <>
            <Button weight="main" aria-expanded={doing === "move"} onClick={() => setDoing("move")}>
              Move
            </Button>
            <Button aria-expanded={doing === "cancel"} onClick={() => setDoing("cancel")}>
              Cancel the meeting
            </Button>
          </>
        )}
        {meeting.canBeMissed && (
          <Button disabled={note.isPending} onClick={() => note.mutate(meeting.state !== "missed")}>
            {meeting.state === "missed" ? "They did come" : "They did not come"}
          </Button>
        )}
        <a className={buttonLook("quiet")} href={meeting.link} target="_blank" rel="noreferrer">
          Their page
        </a>
      </div>
      <Failure error={note.error} />
      {doing === "move" && <Move meeting={meeting} onDone={() => setDoing(null)} />}
      {doing === "cancel" && <Cancel meeting={meeting} onDone={() => setDoing(null)} />}
    </div>
  );
}

function Move({ meeting, onDone }: { meeting: View; onDone: () => void }) {
  const notice = useNotice();
  const sendKey = useSendKey();
  const [start, setStart] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const times = useQuery(
    ask(["meeting-times", meeting.typeId, meeting.id], () =>
      api.GET("/api/meetings/times", { params: { query: { type: meeting.typeId, moving: meeting.id } } }),
    ),
  );
  const move = useMutation({
    mutationFn: () => {
      const body = { start: start!, reason };
      return orProblem(
        api.POST("/api/meetings/{id}/move", { params: { path: { id: meeting.id } }, body, headers: sendKey.for(body) }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      notice({ words: `Moved. ${meeting.name} gets the new time by mail.` });
      onDone();
    },
    onError: (error) => {
      if (error instanceof Problem && error.nearest.length > 0) setStart(null);
    },
  });
  return (
    <form
      className="mt-3 grid gap-3 rounded-soft border border-edge p-4"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (start && !move.isPending) move.mutate();
      }}
    >
      {times.data ? (
        <FreeTimes times={times.data} chosen={start} onChoose={setStart} />
      ) : times.error ? (
        <Failure error={times.error} />
      ) : (
        <Skeleton rows={4} />
      )}
      <NearestTimes error={move.error} chosen={start} onChoose={setStart} />
      <Reason value={reason} onChange={setReason} />
      {!(move.error instanceof Problem && move.error.nearest.length > 0) && <Failure error={move.error} />}
      <span className="flex gap-2">
        <Button weight="main" type="submit" disabled={!start || move.isPending}>
          Move it
        </Button>
        <Button weight="quiet" onClick={onDone}>
          Keep the old time
        </Button>
      </span>
    </form>
  );
}

function Cancel({ meeting, onDone }: { meeting: View; onDone: () => void }) {
  const notice = useNotice();
  const sendKey = useSendKey();
  const [reason, setReason] = useState("");
  const cancel = useMutation({
    mutationFn: () => {
      const body = { reason };
      return orProblem(
        api.POST("/api/meetings/{id}/cancel", {
          params: { path: { id: meeting.id } },
          body,
          headers: sendKey.for(body),
        }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      notice({ words: `Cancelled. ${meeting.name} hears of it by mail.` });
      onDone();
    },
  });
  return (
    <form
      className="mt-3 grid gap-3 rounded-soft border border-edge p-4"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (!cancel.isPending) cancel.mutate();
      }}
    >
      <p>
        <strong>Cancel it?</strong> {meeting.name} hears of it by mail, and it goes out of their calendar.
      </p>
      <Reason value={reason} onChange={setReason} />
      <Failure error={cancel.error} />
      <span className="flex gap-2">
        <Button weight="main" type="submit" disabled={cancel.isPending}>
          Cancel the meeting
        </Button>
        <Button weight="quiet" onClick={onDone}>
          Keep it
        </Button>
      </span>
    </form>
  );
}

function Reason({ value, onChange }: { value: string; onChange: (reason: string) => void }) {
  return (
    <label className="block">
      <span className="block font-semibold">
        Why <span className="font-normal text-slate">optional; it stands in the mail</span>
      </span>
      <GrowingText className={`${boxLook} mt-1`} value={value} onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}
