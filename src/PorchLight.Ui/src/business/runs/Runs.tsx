import { useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { orProblem, sentenceOf, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

type Run = Schemas["RunView"];

interface Props {
  client: string;
  /** The piece of work whose runs are shown; null for all of the client. */
  project: string | null;
  /** The piece of work that another is started for; null for none. */
  startsFor: string | null;
}

/** What follows for somebody: where it stands, what comes next and when, and what can be done with it. */
export function Runs({ client, project, startsFor }: Props) {
  const [all, setAll] = useState(false);
  const path = { id: client };
  const runs = useQuery(ask(["runs", client], () => api.GET("/api/clients/{id}/runs", { params: { path } })));
  const mine = (runs.data ?? []).filter((run) => project === null || run.projectId === project);
  const isOver = (run: Run) => run.status === "finished" || run.status === "stopped";
  const over = mine.filter(isOver);
  const shown = all ? mine : mine.filter((run) => !isOver(run));
  return (
    <Section title="Follow-through">
      <Failure error={runs.error} />
      {runs.data && shown.length === 0 && <p className="text-slate">Nothing is running.</p>}
      <ul className="grid gap-3">
        {shown.map((run) => (
          <OneRun key={run.id} run={run} />
        ))}
      </ul>
      {over.length > 0 && (
        <Button weight="quiet" className="-ml-3" onClick={() => setAll(!all)}>
          {all ? "Only running ones" : `${over.length} finished`}
        </Button>
      )}
      {startsFor && runs.data && <StartAnother client={client} project={startsFor} />}
    </Section>
  );
}

const why: Record<Schemas["RunEnd"], string> = {
  replied: "they answered",
  booked: "they booked",
  anotherStarted: "another one started",
  closed: "it was closed",
  byHand: "stopped by hand",
  setAside: "the inquiry was set aside",
  stageMoved: "the stage moved on",
  meetingMoved: "the meeting was moved",
  meetingCancelled: "the meeting was cancelled",
  meetingMissed: "they did not come to the meeting",
  wentOn: "they continued the form",
};

const stands: Record<Schemas["StepStatus"], string> = {
  later: "",
  planned: "",
  waiting: "waits for a nod since",
  approved: "goes",
  done: "",
  skipped: "skipped",
  lapsed: "time ran out",
  cancelled: "cancelled",
  passedOver: "not done",
};

function OneRun({ run }: { run: Run }) {
  const notice = useNotice();
  const [open, setOpen] = useState(false);
  const path = { id: run.id };
  const act = useMutation({
    mutationFn: (send: () => Promise<unknown>) => send(),
    onError: (error) => notice({ words: sentenceOf(error) }),
  });
  const next = run.steps.find((step) => step.isNext);
  const isPaused = run.status === "paused";
  const isOver = run.status === "finished" || run.status === "stopped";
  const step = { params: { path: { ...path, step: next?.key ?? "" } } };
  return (
    <li className={`rounded-soft border p-3 ${run.failure ? "border-brick" : "border-line"}`}>
      <p className="flex flex-wrap items-baseline justify-between gap-x-3">
        <Link to={`/follow-through/${run.followThroughId}`} className="font-semibold hover:underline">
          {run.name}
        </Link>
        <span className="text-slate">
          {isOver
            ? `${run.why ? `ended because ${why[run.why]}` : "finished"}, ${run.ended ?? ""}`
            : `begun ${run.started}`}
        </span>
      </p>
      {run.failure && (
        <p role="alert" className="font-semibold text-brick">
          {run.failure} {run.triesAgain ? `It is tried again ${run.triesAgain}.` : "It needs a decision from you."}
        </p>
      )}
      {!isOver && (
        <p>
          {isPaused && <strong>Paused. </strong>}
          {next ? `Next: “${next.name}” ${stands[next.status]} ${next.when ?? "no date yet"}` : "Nothing more to come."}
          {run.number !== run.newest && (
            <span className="text-slate">
              {" "}
              On version {run.number}; version {run.newest} is in force.
            </span>
          )}
        </p>
      )}
      <p className="mt-1 -ml-3 flex flex-wrap gap-x-1">
        <Button weight="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Fewer" : "All steps"}
        </Button>
        {!isOver && (
          <>
            <Button
              weight="quiet"
              onClick={() =>
                act.mutate(() =>
                  orProblem(api.PUT("/api/runs/{id}/paused", { params: { path }, body: { isPaused: !isPaused } })),
                )
              }
            >
              {isPaused ? "Resume" : "Pause"}
            </Button>
            {next?.status === "waiting" && (
              <Link to={`/nods/${run.id}/${next.key}`} className={buttonLook("quiet")}>
                Look at it
              </Link>
            )}
            {next?.canBeDoneNow && !isPaused && (
              <Button
                weight="quiet"
                onClick={() => act.mutate(() => orProblem(api.POST("/api/runs/{id}/steps/{step}/now", step)))}
              >
                Do it now
              </Button>
            )}
            {next && !isPaused && (
              <Button
                weight="quiet"
                onClick={() => act.mutate(() => orProblem(api.POST("/api/runs/{id}/steps/{step}/skip", step)))}
              >
                Skip “{next.name}”
              </Button>
            )}
            {run.failure && (
              <Button
                weight="quiet"
                onClick={() => act.mutate(() => orProblem(api.POST("/api/runs/{id}/try-again", { params: { path } })))}
              >
                Try again
              </Button>
            )}
            <Button
              weight="quiet"
              onClick={() => act.mutate(() => orProblem(api.POST("/api/runs/{id}/stop", { params: { path } })))}
            >
              Stop it
            </Button>
          </>
        )}
      </p>
      {open && (
        <ol className="mt-2 grid gap-1 border-l-2 border-line pl-3">
          {run.steps.map((one) => (
            <li key={one.key} className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3" title={one.does}>
              <span className={one.isNext ? "font-semibold" : ""}>{one.name}</span>
              <span className="text-slate tabular-nums">
                {[stands[one.status], one.when].filter(Boolean).join(" ") || (one.isNext ? "no date yet" : "later")}
              </span>
            </li>
          ))}
        </ol>
      )}
    </li>
  );
}

function StartAnother({ client, project }: { client: string; project: string }) {
  const sendKey = useSendKey();
  const [chosen, setChosen] = useState("");
  const list = useQuery(
    ask(["runs", client, "startable", project], () =>
      api.GET("/api/clients/{id}/runs/startable", { params: { path: { id: client }, query: { project } } }),
    ),
  );
  const start = useMutation({
    mutationFn: () => {
      const body = { followThroughId: chosen, projectId: project };
      return orProblem(
        api.POST("/api/clients/{id}/runs", { params: { path: { id: client } }, body, headers: sendKey.for(body) }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      setChosen("");
    },
  });
  const offered = list.data ?? [];
  const wanted = offered.find((one) => one.id === chosen);
  const ends = wanted?.ends ?? [];
  if (offered.length === 0) return null;
  return (
    <div className="mt-2">
      {offered
        .filter((one) => one.missed)
        .map((one) => (
          <p key={one.id} className="mb-2">
            “{one.name}” should have started on {one.missed} and did not.{" "}
            <Button weight="quiet" className="-ml-3" disabled={start.isPending} onClick={() => setChosen(one.id)}>
              Start by hand …
            </Button>
          </p>
        ))}
      <p className="flex flex-wrap items-center gap-2">
        <select
          aria-label="Which follow-through to start"
          className={`${controlLook} w-auto max-w-64`}
          value={chosen}
          onChange={(e) => setChosen(e.target.value)}
        >
          <option value="">start another …</option>
          {offered.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
        {wanted && (
          <Button disabled={start.isPending} onClick={() => start.mutate()}>
            Start it
          </Button>
        )}
      </p>
      {ends.length > 0 && (
        <p className="mt-1 text-slate">
          It ends {ends.map((name) => `“${name}”`).join(" and ")}; what is still to come there is cancelled.
        </p>
      )}
      <Failure error={start.error} />
    </div>
  );
}
