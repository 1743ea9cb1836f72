import { useEffect, useRef } from "react";
import type { Schemas } from "../../../api/problem";
import { SignalEditor } from "./SignalEditor";
import type { EditedScreening, Signal } from "./useScreening";

interface Props {
  screening: EditedScreening;
  facts: Schemas["ScreeningFacts"];
  suggestions: Schemas["SuggestionView"][];
  /** The key of the signal that is edited; null for none. */
  open: string | null;
  onOpen: (key: string | null) => void;
}

/** What answers say about fit: one line a signal, the chosen one in full. */
export function SignalList({ screening, facts, suggestions, open, onOpen }: Props) {
  const { rules, step } = screening;
  const list = useRef<HTMLUListElement>(null);
  // Whoever opens a signal goes on in it; whoever is done is back at its line.
  const was = useRef(open);
  useEffect(() => {
    if (was.current === open) return;
    const back = was.current;
    was.current = open;
    const line = list.current?.querySelector<HTMLElement>(`[data-signal="${open ?? back}"]`);
    (open ? line?.querySelector<HTMLElement>("input") : line?.querySelector<HTMLElement>("button"))?.focus();
  }, [open]);
  if (rules.signals.length === 0)
    return (
      <p className="rounded-soft bg-card p-5 shadow-soft">
        Nothing tells about fit yet, so nobody is sorted. Take one of the ready signals below, or write your own.
      </p>
    );
  const change = (key: string, next: Signal, member: string) =>
    step(
      (now) => ({ ...now, signals: now.signals.map((one) => (one.key === key ? next : one)) }),
      `signal ${key} ${member}`,
    );
  const remove = (key: string) => {
    onOpen(null);
    step((now) => ({ ...now, signals: now.signals.filter((one) => one.key !== key) }), `signal ${key} away`);
  };
  return (
    <ul ref={list} className="overflow-hidden rounded-soft bg-card shadow-soft">
      {rules.signals.map((signal) => {
        const finding = facts.findings.find((one) => one.place === signal.key)?.sentence;
        const known = facts.signals[signal.key];
        const learned = suggestions.find((one) => one.signal === signal.key);
        const today = signal.effect.kind === "points" ? signal.effect.points : null;
        return (
          <li key={signal.key} data-signal={signal.key} className="border-b border-line last:border-0">
            {open === signal.key ? (
              <SignalEditor
                signal={signal}
                finding={finding}
                onChange={(next, member) => change(signal.key, next, member)}
                onRemove={() => remove(signal.key)}
                onDone={() => onOpen(null)}
              />
            ) : (
              <button
                type="button"
                className="grid w-full grid-cols-[3.6rem_minmax(0,1fr)_auto] items-start gap-x-3 px-4 py-2.5 text-left -outline-offset-2 hover:bg-mist/70"
                onClick={() => onOpen(signal.key)}
              >
                <strong className={`text-right tabular-nums ${signal.isOff ? "text-slate line-through" : ""}`}>
                  {short(signal)}
                </strong>
                <span>
                  <span className={signal.isOff ? "text-slate" : ""}>{signal.sentence || "(says nothing yet)"}</span>
                  {signal.isOff && <span className="text-slate"> (switched off)</span>}
                  {known && <span className="block text-note text-slate">when {known.when}</span>}
                  {finding && <span className="block font-semibold text-brick">{finding}</span>}
                </span>
                <span className="text-slate tabular-nums">{learned?.counts ?? ""}</span>
              </button>
            )}
            {open !== signal.key && learned?.words && learned.points !== today && (
              <p className="-mt-2 pr-4 pb-2 pl-[5.35rem] text-note text-slate">
                {learned.words}{" "}
                <button
                  type="button"
                  className="font-semibold text-dusk underline"
                  aria-label={`Try it: ${signal.sentence}`}
                  onClick={() =>
                    change(signal.key, { ...signal, effect: { kind: "points", points: learned.points ?? 0 } }, "tried")
                  }
                >
                  Try it
                </button>
              </p>
            )}
          </li>
        );
      })}
    </ul>
  );
}

function short({ effect }: Signal): string {
  switch (effect.kind) {
    case "points":
      return effect.points < 0 ? `−${-effect.points}` : `+${effect.points}`;
    case "flag":
      return "flag";
    default:
      return "ends it";
  }
}
