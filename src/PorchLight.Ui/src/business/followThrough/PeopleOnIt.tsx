import { useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { orProblem } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";

/** Who is on it, on which version, and what moving them to the one in force would change. */
export function PeopleOnIt({ id }: { id: string }) {
  const notice = useNotice();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const path = { id };
  const on = useQuery(
    ask(["people-on-it", id], () => api.GET("/api/follow-throughs/{id}/people", { params: { path } })),
  );
  const move = useMutation({
    mutationFn: (runs: string[]) =>
      orProblem(
        api.PUT("/api/follow-throughs/{id}/people/version", {
          params: { path },
          body: { runs, to: on.data?.number ?? 0 },
        }),
      ),
    onSuccess: async ({ moved }) => {
      setChosen(new Set());
      notice({ words: `${say(moved, "person is", "people are")} on version ${on.data?.number ?? ""} now.` });
    },
  });
  // Whoever is no client yet has no page on which it could be stopped.
  const stop = useMutation({
    mutationFn: (run: string) => orProblem(api.POST("/api/runs/{id}/stop", { params: { path: { id: run } } })),
  });
  if (!on.data) return on.error ? <Failure error={on.error} /> : <Skeleton />;
  const { people, changes, number } = on.data;
  const behind = people.filter((one) => one.moved !== null);
  const ids = behind.filter((one) => chosen.has(one.runId)).map((one) => one.runId);
  const choose = (run: string, isChosen: boolean) =>
    setChosen((before) => {
      const next = new Set(before);
      if (isChosen) next.add(run);
      else next.delete(run);
      return next;
    });
  if (people.length === 0) return <Empty>Nobody is on it now.</Empty>;
  return (
    <div className="pb-6 lg:min-h-0 lg:flex-1 lg:overflow-y-auto">
      {changes.map((since) => (
        <section key={since.number} className="mb-4 rounded-soft bg-card p-4 shadow-soft">
          <h2 className="mb-1 text-section">What is different for those on version {since.number}</h2>
          <ul className="list-disc pl-5">
            {since.sentences.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </section>
      ))}
      <Failure error={move.error ?? stop.error} />
      {behind.length > 0 && (
        <p className="mb-3 flex flex-wrap items-center gap-2">
          <Button weight="main" disabled={move.isPending || ids.length === 0} onClick={() => move.mutate(ids)}>
            Move {ids.length === 0 ? "those you choose" : say(ids.length, "person", "people")} to version {number}
          </Button>
          <Button disabled={move.isPending} onClick={() => move.mutate(behind.map((one) => one.runId))}>
            Move all {behind.length}
          </Button>
          <span className="text-slate">The dates below say what comes next for each.</span>
        </p>
      )}
      <ul className="rounded-soft bg-card shadow-soft">
        {people.map((one) => (
          <li
            key={one.runId}
            className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-2.5 last:border-0"
          >
            {behind.length > 0 && (
              <input
                type="checkbox"
                aria-label={`Choose ${one.name}`}
                className="size-[1.15rem] accent-dusk"
                disabled={one.moved === null}
                checked={chosen.has(one.runId)}
                onChange={(e) => choose(one.runId, e.target.checked)}
              />
            )}
            {one.clientId ? (
              <Link to={`/clients/${one.clientId}`} className="min-w-48 flex-1 font-semibold hover:underline">
                {one.name}
              </Link>
            ) : (
              <span className="min-w-48 flex-1">
                <span className="font-semibold">{one.name}</span>{" "}
                <Button weight="quiet" disabled={stop.isPending} onClick={() => stop.mutate(one.runId)}>
                  Stop
                </Button>
              </span>
            )}
            <span className="w-24 text-slate">version {one.number}</span>
            <span className="min-w-56 flex-1">
              {one.failure ? (
                <span className="font-semibold text-brick">{one.failure}</span>
              ) : one.isPaused ? (
                "paused"
              ) : one.step === null ? (
                "nothing comes"
              ) : (
                `“${one.step}” ${one.status === "waiting" ? `waits for your nod since ${one.when ?? ""}` : (one.when ?? "no date yet")}`
              )}
            </span>
            {behind.length > 0 && (
              <span className="min-w-48 flex-1 text-slate">{one.moved && `then ${one.moved}`}</span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
