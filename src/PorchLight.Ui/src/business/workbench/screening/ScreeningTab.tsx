import { useMemo, useState, type ReactNode } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../../api/ask";
import { Redo2, Undo2 } from "lucide-react";
import { useSearchParams } from "react-router";
import { orProblem, type Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { newKey } from "../../../kit/newKey";
import { useNotice } from "../../../kit/Notice";
import { NumberBox } from "../../../kit/NumberBox";
import { Failure, Skeleton } from "../../../kit/states";
import { ToolButton } from "../../../kit/ToolButton";
import { api } from "../../../api/client";
import { Clashes } from "../../saving/Clashes";
import { IntoForce } from "../../saving/IntoForce";
import { say } from "../../shell/say";
import { useSession } from "../../shell/session";
import { wholeForm } from "../form";
import type { Building } from "../useWorkingForm";
import { WorkbenchContext } from "../workbenchContext";
import { FitScale } from "./FitScale";
import { ReadySignals } from "./ReadySignals";
import { never } from "./SignalEditor";
import { SignalList } from "./SignalList";
import { HowWell, Moves } from "./SortedAgain";
import { useScreening, useSortedAgain, useStoredScreening, type EditedScreening } from "./useScreening";

interface Props {
  id: string;
  building: Building;
}

/** How a form sorts: what answers say about fit, where past inquiries fall, and what other rules would have made of them. */
export function ScreeningTab({ id, building }: Props) {
  const stored = useStoredScreening(id);
  const parts = useQuery({ ...ask(["form-parts"], () => api.GET("/api/forms/parts")), staleTime: Infinity });
  const context = useMemo(
    () =>
      parts.data && {
        id,
        parts: parts.data,
        edit: building.step,
        open: () => {},
        readForm: building.read,
        form: building.form,
        facts: building.facts,
        at: wholeForm,
        workedOut: {},
      },
    [id, parts.data, building.step, building.read, building.form, building.facts],
  );
  if (!stored.data || !stored.isFetchedAfterMount || !context)
    return stored.error || parts.error ? <Failure error={stored.error ?? parts.error} /> : <Skeleton rows={8} />;
  return (
    <WorkbenchContext value={context}>
      <Editor id={id} view={stored.data} />
    </WorkbenchContext>
  );
}

function Editor({ id, view }: { id: string; view: Schemas["ScreeningView"] }) {
  const { role } = useSession();
  const screening = useScreening(id, view);
  const { rules, step } = screening;
  const sorted = useSortedAgain(id, rules);
  const [search, setSearch] = useSearchParams();
  const about = search.get("about");
  const first = about ? rules.signals.find((one) => view.facts.signals[one.key]?.questions.includes(about)) : undefined;
  const [open, setOpen] = useState<string | null>(first?.key ?? null);
  const report = sorted.data;
  const show = (key: string | null) => {
    setOpen(key);
    if (about) setSearch({}, { replace: true });
  };
  const add = (signal: Schemas["Signal"]) =>
    step(
      (now) =>
        now.signals.some((one) => one.key === signal.key)
          ? {
              ...now,
              signals: now.signals.map((one) =>
                one.key === signal.key ? { ...one, sentence: signal.sentence, when: signal.when } : one,
              ),
            }
          : { ...now, signals: [...now.signals, signal] },
      `signal ${signal.key} added`,
    );
  const addOwn = () => {
    const key = newKey().slice(0, 8);
    add({ key, sentence: "", when: never, effect: { kind: "points", points: 10 } });
    show(key);
  };
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
        <span>
          {view.number === 0 ? "No screening is in force." : `Screening ${view.number} is in force`}
          {view.inForce && `, ${view.inForce}`}.
        </span>
        {view.number > 0 && view.changes.length === 0 && <SortUnsorted id={id} report={report} />}
        <span role="status" className="text-slate">
          {screening.isSaving ? "Saving …" : screening.isDirty ? "" : screening.wasSaved ? "Saved" : ""}
        </span>
        <span className="ml-auto flex gap-1">
          <ToolButton
            label="Undo"
            off={!screening.canUndo}
            onClick={screening.undo}
            icon={<Undo2 size={18} aria-hidden />}
          />
          <ToolButton
            label="Redo"
            off={!screening.canRedo}
            onClick={screening.redo}
            icon={<Redo2 size={18} aria-hidden />}
          />
        </span>
      </div>
      <Failure
        error={
          (screening.clashes.length === 0 && screening.error) || screening.putIntoForce.error || screening.drop.error
        }
        takesFocus={screening.putIntoForce.isError}
      />
      <Clashes
        clashes={screening.clashes}
        nameOf={(place) => nameOf(place, rules.signals)}
        onChoose={screening.choose}
      />
      <div className="grid items-start gap-6 lg:grid-cols-2">
        <div>
          <div className="mb-2 flex items-baseline justify-between">
            <h2 className="text-section">What an answer says about fit</h2>
            <span className="text-slate">how many it fits, and how many of them booked</span>
          </div>
          <SignalList
            screening={screening}
            facts={view.facts}
            suggestions={report?.suggestions ?? []}
            open={open}
            onOpen={show}
          />
          <div className="mt-3 flex flex-wrap gap-2">
            <Button onClick={addOwn}>Write a signal</Button>
            {report?.suggested && (
              <Button onClick={() => step(() => report.suggested!, "all suggested")}>Try all suggested points</Button>
            )}
          </div>
          <ReadySignals ready={view.ready} onTake={add} />
        </div>
        <div className="grid gap-6">
          <section aria-label="Where past inquiries fall">
            <h2 className="mb-2 text-section">Where past inquiries fall</h2>
            <div className="rounded-soft bg-card p-4 shadow-soft">
              <FitScale rules={rules} sorted={report?.sorted ?? []} words={report?.where ?? null} />
              <Thresholds screening={screening} findings={view.facts.findings} />
            </div>
          </section>
          {report && <Moves report={report} />}
          {report && <HowWell report={report} />}
          {report && role === "owner" && <FirstCall minutes={report.firstCallMinutes} />}
        </div>
      </div>
      {(view.changes.length > 0 || screening.isDirty) && (
        <Waiting screening={screening} view={view} moves={report?.movesWords ?? ""} />
      )}
    </>
  );
}

interface WaitingProps {
  screening: EditedScreening;
  view: Schemas["ScreeningView"];
  moves: string;
}

/** What putting it into force changes. */
function Waiting({ screening, view, moves }: WaitingProps) {
  const notice = useNotice();
  const next = view.number + 1;
  const wrong = view.facts.findings[0];
  return (
    <IntoForce
      back={{
        words: view.number === 0 ? "Start again" : `Go back to screening ${view.number}`,
        busy: screening.drop.isPending,
        onPress: () => screening.drop.mutate(),
      }}
      title={`What changes with screening ${next}`}
      about={`${moves} Whoever writes from now on is sorted by it; past inquiries keep their fit.`}
      changes={view.changes}
      problems={wrong ? [`Something has to be put right first: ${wrong.sentence}`] : []}
      act={`Put screening ${next} into force`}
      busy={screening.putIntoForce.isPending}
      onAct={(done) =>
        screening.putIntoForce.mutate(undefined, {
          onSuccess: (now) => notice({ words: `Screening ${now.number} is in force. Past inquiries keep their fit.` }),
          onSettled: done,
        })
      }
    >
      {moves}
    </IntoForce>
  );
}

/** Base, thresholds and flag limit, as a sentence with numbers in it. */
function Thresholds({ screening, findings }: { screening: EditedScreening; findings: Schemas["Finding"][] }) {
  const { rules, step } = screening;
  const wrong = (member: string) => findings.find((one) => one.place === member)?.sentence;
  const box = (member: "base" | "comeInAt" | "floor" | "flagLimit", label: string) => (
    <NumberBox
      aria-label={label}
      aria-invalid={wrong(member) ? true : undefined}
      className="w-20"
      whole
      value={rules[member]}
      onChange={(points) => points !== null && step((now) => ({ ...now, [member]: points }), member)}
    />
  );
  const sentences = ["base", "comeInAt", "floor", "flagLimit", "signals"].flatMap((member) => wrong(member) ?? []);
  return (
    <>
      <p className="mt-3 flex flex-wrap items-center gap-x-2 gap-y-2">
        <Piece>Everyone starts with {box("base", "Points everyone starts with")} points.</Piece>
        <Piece>Come in from {box("comeInAt", "Come in from")},</Piece>
        <Piece>Not now under {box("floor", "Not now under")}.</Piece>
        <Piece>{box("flagLimit", "Flags that are enough for Not now")} flags are enough for Not now.</Piece>
      </p>
      {sentences.map((words) => (
        <p key={words} role="alert" className="mt-1 font-semibold text-brick">
          {words}
        </p>
      ))}
    </>
  );
}

const Piece = ({ children }: { children: ReactNode }) => (
  <span className="inline-flex items-center gap-1.5 whitespace-nowrap">{children}</span>
);

/** How long a first call takes: what hours saved are counted by. */
function FirstCall({ minutes }: { minutes: number }) {
  const [typed, setTyped] = useState<number | null>(minutes);
  const save = useMutation({
    mutationFn: (value: number) => orProblem(api.PUT("/api/settings/first-call", { body: { minutes: value } })),
  });
  return (
    <div>
      <p className="flex items-center gap-2">
        A first call takes
        <NumberBox
          aria-label="Minutes a first call takes"
          className="w-20"
          whole
          value={typed}
          onChange={setTyped}
          onBlur={() => typed !== null && typed !== minutes && save.mutate(typed)}
        />
        minutes.
      </p>
      <Failure error={save.error} />
    </div>
  );
}

const numbers: Record<string, string> = {
  base: "Points everyone starts with",
  comeInAt: "Where Come in begins",
  floor: "Where Not now ends",
  flagLimit: "Flags that are enough for Not now",
};

function nameOf(place: string, signals: Schemas["Signal"][]): string {
  const [list = "", key = ""] = place.split(".");
  if (list !== "signals") return numbers[list] ?? list;
  if (key === "~order") return "The order of the signals";
  return signals.find((one) => one.key === key)?.sentence || "A deleted signal";
}

/** Those who came while the form sorted nobody, sorted in one press. */
function SortUnsorted({ id, report }: { id: string; report: Schemas["SortedAgain"] | undefined }) {
  const notice = useNotice();
  const sort = useMutation({
    mutationFn: () => orProblem(api.POST("/api/forms/{id}/screening/sort-unsorted", { params: { path: { id } } })),
    onSuccess: ({ count }) => {
      notice({ words: `Sorted: ${say(count, "inquiry", "inquiries")}.` });
    },
  });
  const count = report?.unsorted.reduce((sum, one) => sum + one.count, 0) ?? 0;
  if (count === 0) return null;
  return (
    <>
      <span>{say(count, "inquiry is", "inquiries are")} not sorted yet.</span>
      <Button disabled={sort.isPending} onClick={() => sort.mutate()}>
        Sort {count === 1 ? "it" : "them"} now
      </Button>
      <Failure error={sort.error} />
    </>
  );
}
