import { DayInput, TimeInput } from "../../kit/DayBox";
import { useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { type Schemas } from "../../api/problem";
import { controlLook } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import type { Edited } from "./useFollowThrough";

type Request = Schemas["RehearsalRequest"];
type Row = Schemas["RehearsedRow"];

const look = `${controlLook} w-auto max-w-full`;

/** Every date and message, before it is live: with a person or an example, and with what they may do. */
export function Rehearse({ edited, onOpen }: { edited: Edited; onOpen: (key: string | null) => void }) {
  const [client, setClient] = useState("");
  const [start, setStart] = useState("");
  const [act, setAct] = useState<"" | Schemas["AssumedAct"]>("");
  const [day, setDay] = useState<number | null>(5);
  const [nods, setNods] = useState<Request["nods"]>("atOnce");
  const [open, setOpen] = useState<string | null>(null);
  const path = { id: edited.id };
  const people = useQuery(
    ask(["people-to-rehearse", edited.id], () =>
      api.GET("/api/follow-throughs/{id}/rehearse/people", { params: { path } }),
    ),
  );
  const body: Request = {
    clientId: client || null,
    // Time boxes leave the seconds out.
    start: start ? `${start.slice(0, 16)}:00` : null,
    assumed: act ? [{ act, day: day ?? 0 }] : [],
    nods,
  };
  const rehearsed = useQuery({
    // What is stored is what is played: it is asked for again whenever that is another.
    ...ask(["rehearsal", edited.id, body, edited.isDirty || edited.isSaving ? "typing" : edited.content], (signal) =>
      api.POST("/api/follow-throughs/{id}/rehearse", { params: { path }, body, signal }),
    ),
    enabled: !edited.isDirty && !edited.isSaving && edited.content.steps.length > 0,
    placeholderData: (before) => before,
    retry: false,
  });
  const view = rehearsed.data;
  const begins = start || view?.start.slice(0, 16);
  return (
    <div>
      <h2 className="mb-2 text-lead">Rehearse</h2>
      <p className="mb-3 flex flex-wrap items-center gap-2">
        <span>With</span>
        <select
          aria-label="Rehearse with"
          className={`${look} max-w-56`}
          value={client}
          onChange={(e) => setClient(e.target.value)}
        >
          <option value="">an example</option>
          {people.data?.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
        <span>from</span>
        <DayInput
          aria-label="The day it starts"
          value={begins?.slice(0, 10)}
          onChange={(day) => day && setStart(`${day}T${begins?.slice(11) ?? "09:00"}`)}
        />
        <TimeInput
          aria-label="The time it starts"
          value={begins?.slice(11)}
          onChange={(time) => time && begins && setStart(`${begins.slice(0, 10)}T${time}`)}
        />
      </p>
      <p className="mb-4 flex flex-wrap items-center gap-2">
        <span>Suppose they</span>
        <select
          aria-label="What they do"
          className={look}
          value={act}
          onChange={(e) => setAct(e.target.value as typeof act)}
        >
          <option value="">stay silent</option>
          <option value="replies">answer</option>
          <option value="books">book a meeting</option>
        </select>
        {act && (
          <>
            <span>on day</span>
            <NumberBox aria-label="On which day" className="w-20" whole value={day} onChange={setDay} />
          </>
        )}
        <span>and you nod</span>
        <select
          aria-label="When you nod"
          className={look}
          value={nods}
          onChange={(e) => setNods(e.target.value as Request["nods"])}
        >
          <option value="atOnce">at once</option>
          <option value="aDayLater">a day later</option>
          <option value="never">never</option>
        </select>
      </p>
      <Failure error={rehearsed.error} />
      {edited.content.steps.length === 0 && <p className="text-slate">Add a step first; then you can rehearse.</p>}
      {rehearsed.isPending && edited.content.steps.length > 0 && <Skeleton />}
      {view && !rehearsed.error && (
        <ol>
          {view.rows.map((row, index) => (
            <li key={row.step}>
              {view.before === index && <Ending words={view.ends} />}
              <Line
                row={row}
                isOpen={open === row.step}
                onToggle={() => setOpen(open === row.step ? null : row.step)}
                onEdit={() => onOpen(row.step)}
              />
            </li>
          ))}
          {(view.before === null || view.before >= view.rows.length) && (
            <li>
              <Ending words={view.ends} />
            </li>
          )}
        </ol>
      )}
    </div>
  );
}

const Ending = ({ words }: { words: string }) => (
  <p className="my-2 rounded-soft bg-mist px-3 py-2 font-semibold">{words}</p>
);

const how: Record<string, string> = {
  skipped: "skipped",
  lapsed: "lapsed without a nod",
  passedOver: "not done",
  planned: "no date yet",
  later: "never comes",
};

interface LineProps {
  row: Row;
  isOpen: boolean;
  onToggle: () => void;
  onEdit: () => void;
}

function Line({ row, isOpen, onToggle, onEdit }: LineProps) {
  const isGone = row.status === "cancelled";
  const words =
    row.status === "done" || isGone
      ? ""
      : row.status === "lapsed" && !row.asked
        ? "it did not happen in time"
        : (how[row.status] ?? "");
  return (
    <div className="border-b border-line py-2">
      <button
        type="button"
        aria-expanded={isOpen}
        className="grid w-full grid-cols-[12rem_minmax(0,1fr)] gap-x-3 text-left hover:underline"
        onClick={onToggle}
      >
        <span className={`tabular-nums ${isGone ? "text-slate line-through" : ""}`} title={row.exactly ?? undefined}>
          {row.when ?? words}
        </span>
        <span>
          <span className={isGone ? "text-slate line-through" : ""}>{row.name || "A step without a name"}</span>
          {row.when && words && <span className="text-slate"> ({words})</span>}
          {isGone && <span className="sr-only"> cancelled</span>}
          {row.asked && row.status === "done" && row.asked !== row.when && (
            <span className="text-slate"> (asked {row.asked})</span>
          )}
        </span>
      </button>
      {isOpen && (
        <div className="mt-2 rounded-soft border border-line p-3">
          {row.message ? (
            <>
              <p className="mb-2 font-semibold">{row.message.subject || "(no subject)"}</p>
              {row.message.parts.map((part) =>
                part.kind === "gap" ? (
                  <p key={part.key} className="my-2 rounded-soft border-2 border-dashed border-dusk bg-glow px-3 py-1">
                    {part.prompt}
                  </p>
                ) : (
                  <p key={part.key} className="whitespace-pre-wrap">
                    {part.text}
                  </p>
                ),
              )}
            </>
          ) : (
            <p>{row.does}</p>
          )}
          <button type="button" className="mt-2 font-semibold text-dusk underline" onClick={onEdit}>
            Change this step
          </button>
        </div>
      )}
    </div>
  );
}
