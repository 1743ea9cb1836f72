import { Button } from "../../../kit/Button";
import { CheckBox, controlLook, GrowingText, boxLook, TextBox } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { ConditionEditor } from "../conditions/ConditionEditor";
import type { Signal } from "./useScreening";

interface Props {
  signal: Signal;
  /** What keeps it from counting. */
  finding: string | undefined;
  onChange: (next: Signal, member: string) => void;
  onRemove: () => void;
  onDone: () => void;
}

const effects: [Signal["effect"]["kind"], string][] = [
  ["points", "gives or takes points"],
  ["flag", "raises a flag"],
  ["dealBreaker", "means it cannot be done"],
];

/** One signal in full: what it means, when it is true, what it does, and what to do about it in the reply. */
export function SignalEditor({ signal, finding, onChange, onRemove, onDone }: Props) {
  const { effect } = signal;
  return (
    <div className="grid gap-3 border-l-4 border-dusk bg-mist/60 p-4">
      {finding && (
        <p role="alert" className="font-semibold text-brick">
          {finding}
        </p>
      )}
      <TextBox
        label="What it tells you"
        value={signal.sentence}
        placeholder="Budget is under the starting price"
        onChange={(e) => onChange({ ...signal, sentence: e.target.value }, "sentence")}
      />
      <ConditionEditor
        value={isNever(signal) ? null : signal.when}
        onChange={(when) => onChange({ ...signal, when: when ?? never }, "when")}
        place={{ at: "signal" }}
        without="It is never true yet."
        begin="Say when it is true"
        label="It is true when"
      />
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          Then it
          <select
            className={controlLook}
            value={effect.kind}
            onChange={(e) =>
              onChange(
                {
                  ...signal,
                  effect:
                    e.target.value === "points"
                      ? { kind: "points", points: 10 }
                      : { kind: e.target.value as "flag" | "dealBreaker" },
                },
                "effect",
              )
            }
          >
            {effects.map(([kind, words]) => (
              <option key={kind} value={kind}>
                {words}
              </option>
            ))}
          </select>
        </label>
        {effect.kind === "points" && (
          <NumberBox
            aria-label="How many points, with a minus to take them away"
            className="w-24"
            whole
            value={effect.points}
            onChange={(points) =>
              points !== null && onChange({ ...signal, effect: { kind: "points", points } }, "points")
            }
          />
        )}
      </div>
      <label className="block">
        <span className="block font-semibold">Advice for the reply (optional)</span>
        <GrowingText
          className={boxLook}
          value={signal.advice ?? ""}
          placeholder="Ask for the permission first"
          onChange={(e) => onChange({ ...signal, advice: e.target.value || null }, "advice")}
        />
      </label>
      <CheckBox
        label="It counts"
        checked={!signal.isOff}
        onChange={(on) => onChange({ ...signal, isOff: !on }, "isOff")}
      />
      <div className="flex gap-2">
        <Button onClick={onDone}>Done</Button>
        <Button weight="quiet" onClick={onRemove}>
          Remove it
        </Button>
      </div>
    </div>
  );
}

/** A condition that nothing fulfils, until somebody says when it is true. */
export const never: Signal["when"] = { kind: "any", parts: [] };

const isNever = ({ when }: Signal) => when.kind === "any" && when.parts.length === 0;
