import { Menu, MenuItem } from "../../kit/Menu";
import { Plus } from "lucide-react";
import type { KeyboardEvent } from "react";
import { Button } from "../../kit/Button";
import { LightMark } from "../../kit/marks";
import { beginStep } from "./beginStep";
import { kindNames, kindOf, stepKinds } from "./steps/stepKinds";
import type { Choices, Content, Edited, Step, StepAction, View } from "./useFollowThrough";

interface Props {
  edited: Edited;
  view: View;
  choices: Choices | undefined;
  /** The key of the step that is open. */
  at: string | null;
  onOpen: (key: string | null) => void;
}

/** The steps on their days, and beside them the line that ends it all. */
export function DayRule({ edited, view, choices, at, onOpen }: Props) {
  const { content, step: change } = edited;
  const facts = new Map(view.steps.map((one) => [one.key, one]));
  const wrong = new Set(view.findings.map((one) => one.place));
  const add = (kind: StepAction["kind"], index: number) => {
    if (!choices) return;
    const made = beginStep(kind, choices, index === 0);
    change((now) => ({ ...now, steps: now.steps.toSpliced(index, 0, made) }), `step ${made.key} added`);
    onOpen(made.key);
  };
  const move = (from: number, to: number) => {
    if (to < 0 || to >= content.steps.length) return;
    change((now) => moved(now, from, to), "order");
  };
  return (
    <div className="flex gap-4 pb-6">
      <ol
        aria-label="The steps on their days"
        className="relative min-w-0 flex-1 before:absolute before:top-2 before:bottom-2 before:left-[4.85rem] before:border-l-2 before:border-edge"
      >
        {content.steps.map((step, index) => {
          const known = facts.get(step.key);
          const above = facts.get(content.steps[index - 1]?.key ?? "");
          const label = known && known.day !== above?.day ? (known.day === null ? "Its day" : `Day ${known.day}`) : "";
          return (
            <li key={step.key}>
              <div className="grid grid-cols-[4.4rem_1.6rem_minmax(0,1fr)] items-center py-1">
                <strong className="text-note">{label}</strong>
                <span aria-hidden className="relative z-[1] size-4 rounded-full border-[3px] border-dusk bg-card" />
                <StepCard
                  step={step}
                  when={known?.when ?? ""}
                  does={known?.does ?? ""}
                  condition={known?.condition ?? null}
                  gaps={known?.gaps ?? 0}
                  isOpen={at === step.key}
                  isWrong={wrong.has(step.key)}
                  onOpen={() => onOpen(step.key)}
                  onMove={(by) => move(index, index + by)}
                />
              </div>
              <AddHere index={index + 1} onAdd={add} />
            </li>
          );
        })}
        {content.steps.length === 0 && (
          <li className="ml-24">
            <p className="mb-2 rounded-soft bg-card p-5 text-slate shadow-soft">
              No step yet. What shall happen first, when {view.starts}?
            </p>
            <AddHere index={0} onAdd={add} shown />
          </li>
        )}
      </ol>
      <div className="w-40 shrink-0 border-l-4 border-dashed border-dusk pl-3 max-sm:hidden">
        <div className="sticky top-1">
          <p className="font-semibold">Ends at once if</p>
          <p>{view.ends ? `${view.ends}, or you close it.` : "you close it."}</p>
          <p className="text-slate">Everything still to come is cancelled.</p>
        </div>
      </div>
    </div>
  );
}

function moved(content: Content, from: number, to: number): Content {
  const steps = [...content.steps];
  steps.splice(to, 0, ...steps.splice(from, 1));
  return { ...content, steps };
}

interface CardProps {
  step: Step;
  when: string;
  does: string;
  condition: string | null;
  gaps: number;
  isOpen: boolean;
  isWrong: boolean;
  onOpen: () => void;
  onMove: (by: number) => void;
}

function StepCard({ step, when, does, condition, gaps, isOpen, isWrong, onOpen, onMove }: CardProps) {
  const { flow } = kindOf(step.action);
  const asks = step.needsNod && !flow;
  const keys = (event: KeyboardEvent) => {
    if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
    event.preventDefault();
    onMove(event.key === "ArrowUp" ? -1 : 1);
  };
  return (
    <button
      type="button"
      aria-pressed={isOpen}
      title="Alt+arrows move it"
      className={`grid w-full items-center gap-x-3 sm:grid-cols-[6.2rem_minmax(0,1fr)] rounded-soft border-l-4 bg-card px-3 py-2 text-left shadow-soft ${isOpen ? "border-dusk" : "border-transparent hover:border-edge"}`}
      onClick={onOpen}
      onKeyDown={keys}
    >
      <span className="inline-flex items-center gap-1.5 text-note text-slate">
        {asks && <LightMark lit size={18} />}
        {asks ? "your nod" : flow ? "" : "by itself"}
      </span>
      <span className="min-w-0">
        <strong className="block">{step.name || "A step without a name"}</strong>
        <span className="block text-note text-slate">
          {flow === "waits" ? does : when}
          {step.action.kind !== "sendMessage" && flow !== "waits" && `; ${does}`}
          {gaps > 0 && `; ${gaps === 1 ? "one gap" : `${gaps} gaps`}`}
        </span>
        {condition && <span className="block text-note text-slate">only if {condition}</span>}
        {isWrong && <span className="block font-semibold text-brick">something is still in the way</span>}
      </span>
    </button>
  );
}

interface AddProps {
  index: number;
  onAdd: (kind: StepAction["kind"], index: number) => void;
  shown?: boolean;
}

/** Adds a step at the place where it will stand. */
function AddHere({ index, onAdd, shown = false }: AddProps) {
  return (
    <div className={shown ? "" : "ml-24 flex h-5 items-center"}>
      <Menu
        trigger={
          shown ? (
            <Button weight="main">Add the first step</Button>
          ) : (
            <button
              type="button"
              className="inline-flex items-center gap-1 rounded-soft px-2 text-caption text-slate hover:text-dusk"
            >
              <Plus size={14} aria-hidden /> add a step<span className="sr-only"> after step {index}</span>
            </button>
          )
        }
      >
        {kindNames.map((kind) => (
          <MenuItem key={kind} onSelect={() => onAdd(kind, index)}>
            {stepKinds[kind].label}
          </MenuItem>
        ))}
      </Menu>
    </div>
  );
}
