import { Redo2, Undo2 } from "lucide-react";
import { NavLink, useParams, useSearchParams } from "react-router";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { ToolButton } from "../../kit/ToolButton";
import { Clashes } from "../saving/Clashes";
import { IntoForce } from "../saving/IntoForce";
import { NothingHere } from "../shell/NothingHere";
import { say } from "../shell/say";
import { useTitle } from "../shell/useTitle";
import { DayRule } from "./DayRule";
import { PeopleOnIt } from "./PeopleOnIt";
import { PlanTable } from "./PlanTable";
import { Rehearse } from "./Rehearse";
import { StepDesk } from "./StepDesk";
import { WholeDesk } from "./WholeDesk";
import { useChoices, useFollowThrough, useStoredFollowThrough, type Edited, type View } from "./useFollowThrough";

const parts = [
  ["", "Day rule"],
  ["plan-table", "Plan table"],
  ["people", "Who is on it"],
] as const;

/** What is shown beside the day rule when no step is: the start, the ends and what holds for all of it. */
export const wholeDesk = "~whole";

/** One follow-through: its days, as a table, and who is on it. */
export function FollowThroughPage() {
  const { id = "", part = "" } = useParams();
  const stored = useStoredFollowThrough(id);
  useTitle(stored.data?.content.name);
  if (!parts.some(([key]) => key === part)) return <NothingHere />;
  if (!stored.data || !stored.isFetchedAfterMount)
    return (
      <main className="h-full overflow-y-auto p-6 sm:px-10">
        {stored.error ? <Failure error={stored.error} /> : <Skeleton rows={8} />}
      </main>
    );
  return <Editor key={id} view={stored.data} part={part} />;
}

function Editor({ view, part }: { view: View; part: string }) {
  const edited = useFollowThrough(view);
  const { content, clashes } = edited;
  const [search, setSearch] = useSearchParams();
  const start = "form" in content.starts ? content.starts.form : null;
  const choices = useChoices(view.id, start);
  const at = search.get("step");
  const open = (key: string | null) => setSearch(key ? { step: key } : {}, { replace: at !== null && key !== null });
  const step = [...content.steps, ...content.stops.flatMap((stop) => stop.last ?? [])].find((one) => one.key === at);
  return (
    <main className="flex h-full flex-col overflow-y-auto px-4 pt-5 sm:px-10 sm:pt-6 lg:overflow-hidden">
      <div className="mb-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="text-title">{content.name || "A follow-through without a name"}</h1>
        <span>
          {view.number === 0
            ? "Not in force yet"
            : `Version ${view.number} is in force${view.inForce ? `, ${view.inForce}` : ""}, switched ${view.isOn ? "on" : "off"}`}
        </span>
        <span role="status" className="text-slate">
          {edited.isSaving ? "Saving …" : edited.isDirty ? "" : edited.wasSaved ? "Saved" : ""}
        </span>
        <span className="ml-auto flex gap-1">
          <ToolButton label="Undo" off={!edited.canUndo} onClick={edited.undo} icon={<Undo2 size={18} aria-hidden />} />
          <ToolButton label="Redo" off={!edited.canRedo} onClick={edited.redo} icon={<Redo2 size={18} aria-hidden />} />
        </span>
      </div>
      <p className="mb-2 text-slate">
        Starts when {view.starts}. {view.people === 0 ? "Nobody is" : `${say(view.people, "person is", "people are")}`}{" "}
        on it.{" "}
        <Button weight="quiet" className="-my-1 px-0!" onClick={() => open(wholeDesk)}>
          Change what starts and ends it
        </Button>
      </p>
      <nav aria-label="This follow-through" className="mb-3 flex flex-wrap gap-1 border-b border-line">
        {parts.map(([key, words]) => (
          <NavLink
            key={key}
            to={`/follow-through/${view.id}${key && `/${key}`}`}
            aria-current={key === part ? "page" : undefined}
            className={`-mb-px border-b-2 px-3 py-1 ${key === part ? "border-dusk font-semibold" : "border-transparent hover:border-edge"}`}
          >
            {words}
            {key === "people" && view.behind > 0 && ` (${view.behind} on an older version)`}
          </NavLink>
        ))}
      </nav>
      <Failure
        error={(clashes.length === 0 && edited.error) || edited.putIntoForce.error || edited.drop.error}
        takesFocus={edited.putIntoForce.isError}
      />
      <Clashes clashes={clashes} nameOf={(place) => nameOf(place, edited)} onChoose={edited.choose} />
      {part === "plan-table" ? (
        <PlanTable edited={edited} view={view} />
      ) : part === "people" ? (
        <>
          {view.startsInstead.map((words) => (
            <p key={words} className="mb-3 rounded-soft bg-glow p-3">
              {words}
            </p>
          ))}
          <PeopleOnIt id={view.id} />
        </>
      ) : (
        <div className="grid gap-6 lg:min-h-0 lg:flex-1 lg:grid-cols-[minmax(0,58fr)_minmax(0,42fr)]">
          <div className="lg:min-h-0 lg:overflow-y-auto lg:pr-2">
            <DayRule edited={edited} view={view} choices={choices} at={at} onOpen={open} />
          </div>
          <aside
            aria-label={step ? "The step" : at === wholeDesk ? "What starts and ends it" : "Rehearse"}
            className="bg-card p-5 shadow-soft lg:-mr-10 lg:min-h-0 lg:overflow-y-auto"
          >
            {!choices ? (
              <Skeleton />
            ) : step ? (
              <StepDesk
                key={step.key}
                edited={edited}
                step={step}
                view={view}
                choices={choices}
                onClose={() => open(null)}
              />
            ) : at === wholeDesk ? (
              <WholeDesk edited={edited} view={view} choices={choices} onOpen={open} onClose={() => open(null)} />
            ) : (
              <Rehearse edited={edited} onOpen={open} />
            )}
          </aside>
        </div>
      )}
      {(view.isWorkedOn || edited.isDirty) && <Waiting edited={edited} view={view} onOpen={open} />}
    </main>
  );
}

/** What is in the way of putting it into force, or what that changes. */
function Waiting({ edited, view, onOpen }: { edited: Edited; view: View; onOpen: (key: string | null) => void }) {
  const notice = useNotice();
  const next = view.number + 1;
  const first = view.findings[0];
  const isFirst = view.number === 0;
  const putIntoForce = (done: () => void) =>
    edited.putIntoForce.mutate(undefined, {
      onSuccess: (now) =>
        notice({
          words:
            now.behind > 0
              ? `Version ${now.number} is in force. ${say(now.behind, "person stays", "people stay")} on an older one until you move them.`
              : `Version ${now.number} is in force.`,
        }),
      onSettled: done,
    });
  return (
    <IntoForce
      back={
        isFirst
          ? null
          : {
              words: `Go back to version ${view.number}`,
              busy: edited.drop.isPending,
              onPress: () => edited.drop.mutate(),
            }
      }
      title={isFirst ? "Put it into force" : `What changes with version ${next}`}
      about={
        isFirst
          ? `From then on it starts when ${view.starts}.`
          : `New runs use it. ${view.people === 0 ? "Nobody is on it now." : `${say(view.people, "person stays", "people stay")} on theirs until you move them.`}`
      }
      changes={[...view.changes, ...view.startsInstead]}
      problems={view.findings.map((one) => stepName(one.place, edited) + one.sentence)}
      act={`Put version ${next} into force`}
      busy={edited.putIntoForce.isPending}
      onAct={putIntoForce}
    >
      {first ? (
        <>
          {view.findings.length === 1 ? "Before that: " : `${view.findings.length} things to put right first: `}
          {first.sentence}
          {first.place !== "" && (
            <Button
              weight="quiet"
              onClick={() => onOpen(first.place === "starts" || first.place === "stops" ? wholeDesk : first.place)}
            >
              Show it
            </Button>
          )}
        </>
      ) : isFirst ? (
        "It is ready."
      ) : (
        `${say(view.changes.length, "change")} since version ${view.number}.`
      )}
    </IntoForce>
  );
}

function stepName(place: string, edited: Edited): string {
  const step = edited.content.steps.find((one) => one.key === place);
  return step ? `“${step.name || "A step without a name"}”: ` : "";
}

const places: Record<string, string> = {
  name: "What it is called",
  starts: "What starts it",
  stops: "What ends it",
  lapseAfterDays: "How long a nod waits",
  keepsRhythm: "Whether it keeps its rhythm",
  sideBySide: "Whether it may run beside others",
};

function nameOf(place: string, edited: Edited): string {
  const [list = "", key = ""] = place.split(".");
  if (list !== "steps") return places[list] ?? list;
  if (key === "~order") return "The order of the steps";
  return edited.content.steps.find((one) => one.key === key)?.name || "A deleted step";
}
