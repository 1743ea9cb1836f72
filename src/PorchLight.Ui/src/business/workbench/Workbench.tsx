import { useCallback, useDeferredValue, useEffect, useEffectEvent, useMemo, useRef, useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useSearchParams } from "react-router";
import { orProblem } from "../../api/problem";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { Desk } from "./desk/Desk";
import { wholeForm } from "./form";
import { Outline } from "./outline/Outline";
import { Preview, type Answers } from "./Preview";
import type { Building } from "./useWorkingForm";
import { ActionsContext, WorkbenchContext } from "./workbenchContext";

const trialPauseMs = 300;
const views = ["outline", "desk", "preview"] as const;
const none: Readonly<Record<string, string>> = {};

/** Where a form is built: its lines, the chosen thing in full, and the form as people see it. */
export function Workbench({ id, building }: { id: string; building: Building }) {
  const { form, facts, step, read, undo, redo, revision } = building;
  const [search, setSearch] = useSearchParams();
  const [view, setView] = useState<(typeof views)[number]>("outline");
  const [answers, setAnswers] = useState<Answers>({});
  const at = search.get("at") ?? wholeForm;
  const parts = useQuery({ ...ask(["form-parts"], () => api.GET("/api/forms/parts")), staleTime: Infinity });
  // Another thing on the desk is read from its beginning.
  const desk = useRef<HTMLDivElement>(null);
  useEffect(() => {
    void desk.current?.scrollTo({ top: 0 });
  }, [at]);
  const fit = useFitSoFar(id, revision, answers);
  const workedOut = useWorkedOut(id, revision, answers, form.items.some(isWorkedOut));

  const open = useCallback(
    (key: string) =>
      setSearch(
        (before) => {
          if (key === wholeForm) before.delete("at");
          else before.set("at", key);
          return before;
        },
        { replace: true },
      ),
    [setSearch],
  );
  const actions = useMemo(
    () => parts.data && { id, parts: parts.data, edit: step, open, readForm: read },
    [id, parts.data, step, open, read],
  );
  const context = useMemo(
    () => actions && { ...actions, form, facts, at, workedOut },
    [actions, form, facts, at, workedOut],
  );
  // What is typed is painted first; the lines and the preview follow as soon as there is time.
  const soon = useDeferredValue(context);
  // Wherever the focus is, Undo takes back what was done to the form.
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
    const key = event.key.toLowerCase();
    if (key === "z" && !event.shiftKey) undo();
    else if (key === "y" || key === "z") redo();
    else return;
    event.preventDefault();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, []);
  if (!actions || !context || !soon) return parts.error ? <Failure error={parts.error} /> : <Skeleton rows={8} />;

  const shown = (one: (typeof views)[number], from: string) => (view === one ? "flex" : `hidden ${from}`);
  return (
    <ActionsContext value={actions}>
      <WorkbenchContext value={context}>
        <div className="flex min-h-0 flex-1 flex-col">
          <div role="group" aria-label="What is shown" className="mb-3 flex gap-1 min-[901px]:hidden">
            {views.map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={view === one}
                className={`rounded-soft border px-3 py-1 ${view === one ? "border-dusk bg-dusk font-semibold text-card" : "border-edge bg-card"}`}
                onClick={() => setView(one)}
              >
                {one === "outline" ? "Outline" : one === "desk" ? "Desk" : "Preview"}
              </button>
            ))}
          </div>
          <div className="grid min-h-0 flex-1 gap-4 min-[901px]:grid-cols-[15.5rem_minmax(0,1fr)_19rem] xl:grid-cols-[18rem_minmax(0,1fr)_23rem]">
            <section
              aria-label="Outline"
              className={`${shown("outline", "min-[901px]:flex")} relative min-h-0 flex-col overflow-y-auto p-1`}
            >
              <WorkbenchContext value={soon}>
                <Outline />
              </WorkbenchContext>
            </section>
            <div
              className={`${shown("desk", "min-[901px]:flex")} relative min-h-0 flex-col overflow-y-auto p-1 pb-10`}
              ref={desk}
            >
              <Desk />
            </div>
            <div className={`${shown("preview", "min-[901px]:flex")} min-h-0 flex-col p-1 pb-4`}>
              <WorkbenchContext value={soon}>
                <Preview revision={revision} onAnswers={setAnswers} fit={fit} />
              </WorkbenchContext>
            </div>
          </div>
        </div>
      </WorkbenchContext>
    </ActionsContext>
  );
}

const isWorkedOut = (item: Building["form"]["items"][number]) =>
  item.item === "question" &&
  (item.kind.kind === "workedOut" ||
    (item.kind.kind === "rows" && item.kind.asks.some((one) => one.kind.kind === "workedOut")) ||
    (item.kind.kind === "people" && item.kind.more.some((one) => one.kind.kind === "workedOut")));

/** What the fit can still become for the answers in the preview, by the screening that is worked on. */
function useFitSoFar(id: string, revision: number, answers: Answers): string | null {
  const [fit, setFit] = useState<string | null>(null);
  useEffect(() => {
    const abort = new AbortController();
    const timer = setTimeout(() => {
      orProblem(
        api.POST("/api/forms/{id}/fit-so-far", { params: { path: { id } }, body: { answers }, signal: abort.signal }),
      ).then(
        ({ words }) => setFit(words),
        () => {}, // It is said again after the next answer.
      );
    }, trialPauseMs);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [id, revision, answers]);
  return fit;
}

/** What the worked-out values come to for the answers in the preview; of a list, for its first line. */
function useWorkedOut(
  id: string,
  revision: number,
  answers: Answers,
  wanted: boolean,
): Readonly<Record<string, string>> {
  const [values, setValues] = useState(none);
  useEffect(() => {
    if (!wanted) return;
    const abort = new AbortController();
    const timer = setTimeout(() => {
      orProblem(
        api.POST("/api/forms/{id}/worked-out", { params: { path: { id } }, body: { answers }, signal: abort.signal }),
      ).then(
        (said) => {
          const inRows = Object.entries(said).flatMap(([place, words]) => {
            const [, row, cell] = place.split("/");
            return row === "0" && cell ? [[cell, words] as const] : [];
          });
          setValues({ ...said, ...Object.fromEntries(inRows) });
        },
        () => {}, // It is said again after the next answer.
      );
    }, trialPauseMs);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [id, revision, answers, wanted]);
  return wanted ? values : none;
}
