import { useEffect, useRef, useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, GrowingText } from "../../kit/fields";
import { fits } from "../../kit/fits";
import { FitMark } from "../../kit/marks";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";

type FitView = Schemas["FitView"];
type Verdict = Schemas["VerdictView"];

interface Props {
  id: string;
  name: string;
  fit: FitView;
  /** Opens the message that tells somebody who was turned away that the door is open after all. */
  onReopen: () => void;
}

/** How an inquiry is sorted, why, and what would change it; a person can sort it otherwise. */
export function FitCard({ id, name, fit, onReopen }: Props) {
  const [overruling, setOverruling] = useState(false);
  const path = { params: { path: { id } } };
  // What was sent and how it was judged never change; finding what would have changed it takes a moment.
  const change = useQuery({
    ...askOnce(["what-would-change", id], () => api.GET("/api/inquiries/{id}/what-would-change", path)),
    staleTime: Infinity,
  });
  const act = useMutation({
    mutationFn: (what: () => Promise<unknown>) => what(),
  });
  const shown = fit.again ?? fit.first;
  return (
    <section aria-label="Why this fit" className="rounded-soft bg-mist p-5">
      <div className="grid gap-5 sm:grid-cols-[11rem_minmax(0,1fr)]">
        <div className="flex items-start gap-3">
          <FitMark fit={fit.fit} size={38} word={false} />
          <div>
            <p className="font-head text-lead font-semibold">{fit.fit.words}</p>
            <p className="text-slate">
              {shown.score < 0 ? `−${-shown.score}` : shown.score} points, {shown.margin}
            </p>
          </div>
        </div>
        <div>
          {fit.overruled && (
            <p className="mb-2">
              {fit.overruled} “{fit.reason}” The answers say <strong>{shown.fit.words}</strong>.
            </p>
          )}
          <Reasons verdict={shown} />
          {change.data?.sentence && !fit.overruled && <p className="mt-2 text-slate">{change.data.sentence}</p>}
          {fit.again && (
            <p className="mt-2 text-slate">
              This is {fit.again.by}. It came in as <strong>{fit.first.fit.words}</strong> with{" "}
              {fit.first.score < 0 ? `−${-fit.first.score}` : fit.first.score} points,{" "}
              {fit.first.by.replace(", as it came in", "")}.
            </p>
          )}
        </div>
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        {!overruling && (
          <Button onClick={() => setOverruling(true)}>
            {fit.overruled ? "Change the verdict again" : "Change the verdict"}
          </Button>
        )}
        {fit.overruled && (
          <Button
            disabled={act.isPending}
            onClick={() => act.mutate(() => orProblem(api.DELETE("/api/inquiries/{id}/fit", path)))}
          >
            Let the answers decide
          </Button>
        )}
        {fit.canJudgeAgain && (
          <Button
            disabled={act.isPending}
            onClick={() => act.mutate(() => orProblem(api.POST("/api/inquiries/{id}/judge-again", path)))}
          >
            Judge it by today’s screening
          </Button>
        )}
      </div>
      <Failure error={act.error} />
      {overruling && <Overrule id={id} name={name} fit={fit} onReopen={onReopen} onDone={() => setOverruling(false)} />}
    </section>
  );
}

/** Every signal that was true, the larger first; what is not known; and what to do about it in the reply. */
function Reasons({ verdict }: { verdict: Verdict }) {
  const known = verdict.contributions.filter((one) => one.truth === "true");
  const open = verdict.contributions.filter((one) => one.truth === "unknown");
  const widest = Math.max(1, verdict.base, ...known.map((one) => Math.abs(one.points)));
  return (
    <>
      <ul className="grid gap-1.5">
        {known.map((one) => (
          <li key={one.signal} className="grid grid-cols-[2.8rem_5rem_minmax(0,1fr)] items-start gap-x-3">
            <span className="text-right text-slate tabular-nums">
              {one.dealBreaker ? "ends it" : one.flag ? "flag" : signed(one.points)}
            </span>
            <Bar points={one.points} widest={widest} />
            <span>
              {one.sentence}
              {one.advice && <span className="block text-slate">For your reply: {one.advice}</span>}
            </span>
          </li>
        ))}
        <li className="grid grid-cols-[2.8rem_5rem_minmax(0,1fr)] items-start gap-x-3">
          <span className="text-right text-slate tabular-nums">{signed(verdict.base)}</span>
          <Bar points={verdict.base} widest={widest} />
          <span>Starting points</span>
        </li>
      </ul>
      {open.length > 0 && (
        <p className="mt-2 text-slate">
          Not known: {open.map((one) => one.sentence.charAt(0).toLowerCase() + one.sentence.slice(1)).join("; ")}.
        </p>
      )}
    </>
  );
}

/** Another fit, with a reason that stays beside what the answers say. */
function Overrule({ id, name, fit, onReopen, onDone }: Props & { onDone: () => void }) {
  const notice = useNotice();
  const [chosen, setChosen] = useState<Schemas["Fit"]>(fits.find(([one]) => one !== fit.fit.fit)?.[0] ?? "comeIn");
  const [reason, setReason] = useState("");
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => form.current?.querySelector("input")?.focus(), []);
  const path = { params: { path: { id } } };
  const save = useMutation({
    mutationFn: () =>
      orProblem(api.PUT("/api/inquiries/{id}/fit", { ...path, body: { fit: chosen, reason, seen: fit.fit.fit } })),
    onSuccess: () => {
      notice({
        words: `${name} is sorted as ${fits.find(([one]) => one === chosen)?.[1]}.`,
        undo: () =>
          fit.reason
            ? orProblem(
                api.PUT("/api/inquiries/{id}/fit", {
                  ...path,
                  body: { fit: fit.fit.fit, reason: fit.reason, seen: chosen },
                }),
              )
            : orProblem(api.DELETE("/api/inquiries/{id}/fit", path)),
      });
      onDone();
      // Who was told a no wants to hear that it is none any more.
      if (fit.fit.fit === "notNow") onReopen();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!save.isPending) save.mutate();
  };
  return (
    <form ref={form} onSubmit={submit} className="mt-3 grid gap-3 rounded-soft border border-edge bg-card p-4">
      <fieldset>
        <legend className="font-semibold">Sort it as</legend>
        <div className="mt-1 flex flex-wrap gap-4">
          {fits.map(([one, words]) => (
            <label key={one} className="inline-flex items-center gap-2">
              <input type="radio" name="fit" checked={chosen === one} onChange={() => setChosen(one)} />
              <FitMark fit={{ fit: one, words }} />
            </label>
          ))}
        </div>
      </fieldset>
      <label className="block">
        <span className="mb-1 block font-semibold">Why</span>
        <GrowingText className={boxLook} value={reason} onChange={(e) => setReason(e.target.value)} />
      </label>
      <Failure error={save.error} />
      <div className="flex gap-2">
        <Button weight="main" type="submit" disabled={save.isPending}>
          Sort it
        </Button>
        <Button weight="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

function Bar({ points, widest }: { points: number; widest: number }) {
  const width = points === 0 ? 0 : Math.max(3, (Math.abs(points) / widest) * 72);
  return (
    <svg width="75" height="12" aria-hidden="true" className="mt-1.5">
      <rect
        x="1"
        y="1"
        width={width}
        height="9"
        rx="1.500"
        className={points < 0 ? "fill-card stroke-dusk" : "fill-dusk stroke-dusk"}
      />
    </svg>
  );
}

const signed = (points: number) => (points < 0 ? `−${-points}` : `+${points}`);
