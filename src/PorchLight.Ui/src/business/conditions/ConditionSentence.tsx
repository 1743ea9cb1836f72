import { Menu, MenuItem } from "../../kit/Menu";
import { useEffect, useRef } from "react";
import { X } from "lucide-react";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { ComparedValue } from "./ComparedValue";
import { membersOf } from "./members";
import { compare, operatorOf, operatorsOf, operatorWords, type Operator } from "./operators";
import { subjectOf, type Condition, type SubjectOnOffer } from "./subjects";

const deepest = 2;
const pickerLook = `${controlLook} w-auto max-w-full`;

interface Props {
  value: Condition | null | undefined;
  onChange: (value: Condition | null) => void;
  /** What it can look at. */
  subjects: SubjectOnOffer[];
  /** Contents without a condition: "Always." */
  without: string;
  /** What the button says that begins one: "Ask it only when …" */
  begin: string;
  /** What the condition is for, said before it: "Asked only when" */
  label: string;
}

/** A condition as a sentence with pickers in it. */
export function ConditionSentence({ value, onChange, subjects, without, begin, label }: Props) {
  const fresh = () => {
    const subject = subjects.findLast((one) => one.group === "Answers") ?? subjects[0];
    return subject && compare(subject, operatorsOf(subject)[0]!);
  };
  // What was pressed is gone with what it did: the focus goes on to what came in its place.
  const frame = useRef<HTMLDivElement>(null);
  const began = useRef(false);
  const isThere = Boolean(value);
  useEffect(() => {
    if (!began.current) return;
    began.current = false;
    frame.current?.querySelector<HTMLElement>("select, button")?.focus();
  }, [isThere]);
  const set = (next: Condition | null) => {
    began.current = Boolean(next) !== isThere;
    onChange(next);
  };
  if (!value)
    return (
      <div ref={frame} className="flex flex-wrap items-center gap-x-3">
        {without && <span>{without}</span>}
        {subjects.length === 0 ? (
          <span className="text-slate">There is no earlier question to base it on.</span>
        ) : (
          <Button weight="quiet" className="-ml-3" onClick={() => set(fresh() ?? null)}>
            {begin}
          </Button>
        )}
      </div>
    );
  return (
    <div ref={frame} role="group" aria-label={label}>
      <p className="mb-1">{label}</p>
      <Part value={value} onChange={set} subjects={subjects} fresh={fresh} depth={0} />
      {!isGroup(value) && (
        <Button
          weight="quiet"
          className="-ml-3"
          onClick={() => {
            const more = fresh();
            if (more) onChange({ kind: "all", parts: [value, more] });
          }}
        >
          Add a condition
        </Button>
      )}
    </div>
  );
}

type Group = Extract<Condition, { kind: "all" | "any" }>;
const isGroup = (condition: Condition): condition is Group => condition.kind === "all" || condition.kind === "any";

interface PartProps {
  value: Condition;
  onChange: (value: Condition | null) => void;
  subjects: SubjectOnOffer[];
  fresh: () => Condition | undefined;
  depth: number;
}

function Part({ value, onChange, subjects, fresh, depth }: PartProps) {
  if (value.kind === "not")
    return (
      <div className="border-l-2 border-edge pl-3" data-member={membersOf(value)}>
        <p className="flex items-center gap-2">
          <span>it is not so that</span>
          <Button weight="quiet" onClick={() => onChange(value.part)}>
            It is so
          </Button>
        </p>
        <Part
          value={value.part}
          onChange={(part) => onChange(part && { kind: "not", part })}
          subjects={subjects}
          fresh={fresh}
          depth={depth}
        />
      </div>
    );
  if (!isGroup(value)) return <ComparisonLine {...{ value, onChange, subjects, fresh, depth }} />;
  const setPart = (index: number, part: Condition | null) => {
    const parts = value.parts.flatMap((one, at) => (at === index ? (part ? [part] : []) : [one]));
    onChange(parts.length === 0 ? null : parts.length === 1 ? parts[0]! : { ...value, parts });
  };
  const add = (part: Condition | undefined) => {
    if (part) onChange(value.parts.length === 0 ? part : { ...value, parts: [...value.parts, part] });
  };
  return (
    <div className={depth > 0 ? "border-l-2 border-edge pl-3" : ""} data-member={membersOf(value)}>
      <select
        aria-label="How many of these must hold"
        className={pickerLook}
        value={value.kind}
        onChange={(e) => onChange({ ...value, kind: e.target.value as "all" | "any" })}
      >
        <option value="all">all of these hold</option>
        <option value="any">at least one of these holds</option>
      </select>
      <ul className="my-1.5 grid gap-1.5">
        {value.parts.map((part, index) => (
          <li key={index}>
            <Part
              value={part}
              onChange={(next) => setPart(index, next)}
              subjects={subjects}
              fresh={fresh}
              depth={depth + 1}
            />
          </li>
        ))}
      </ul>
      <Button weight="quiet" className="-ml-3" onClick={() => add(fresh())}>
        Add a condition
      </Button>
    </div>
  );
}

function ComparisonLine({ value, onChange, subjects, fresh, depth }: PartProps) {
  const id = subjectOf(value);
  const subject = subjects.find((one) => one.id === id);
  const operator = operatorOf(value) as Operator;
  const operators = subject ? operatorsOf(subject) : [];
  const choose = (next: string) => {
    const chosen = subjects.find((one) => one.id === next);
    if (!chosen) return;
    const on = operatorsOf(chosen);
    onChange(compare(chosen, on.includes(operator) ? operator : on[0]!, value));
  };
  return (
    <div className="flex flex-wrap items-center gap-1.5" data-member={membersOf(value)}>
      <select
        aria-label="What is compared"
        className={`${pickerLook} max-w-64`}
        value={id}
        aria-invalid={subject ? undefined : true}
        onChange={(e) => choose(e.target.value)}
      >
        {!subject && <option value={id}>a deleted or later question</option>}
        {["Answers", "What you know of them", "The screening"].map((group) => {
          const here = subjects.filter((one) => one.group === group);
          return here.length === 0 ? null : (
            <optgroup key={group} label={group}>
              {here.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.words}
                </option>
              ))}
            </optgroup>
          );
        })}
      </select>
      <select
        aria-label="How it is compared"
        className={pickerLook}
        value={operator}
        onChange={(e) => subject && onChange(compare(subject, e.target.value as Operator, value))}
      >
        {!operators.includes(operator) && <option value={operator}>{operatorWords[operator]}</option>}
        {operators.map((one) => (
          <option key={one} value={one}>
            {operatorWords[one]}
          </option>
        ))}
      </select>
      <ComparedValue value={value} values={subject?.values ?? []} onChange={onChange} />
      <Menu more="More for this condition">
        <MenuItem onSelect={() => onChange({ kind: "not", part: value })}>Reverse it: not true</MenuItem>
        {depth < deepest && (
          <MenuItem
            onSelect={() => {
              const more = fresh();
              if (more) onChange({ kind: "any", parts: [value, more] });
            }}
          >
            This or something else
          </MenuItem>
        )}
      </Menu>
      <button
        type="button"
        aria-label="Remove this condition"
        className="rounded-soft p-1.5 text-slate hover:text-brick"
        onClick={() => onChange(null)}
      >
        <X size={18} aria-hidden />
      </button>
    </div>
  );
}
