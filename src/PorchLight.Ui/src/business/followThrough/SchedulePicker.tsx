import type { Schemas } from "../../api/problem";
import { CheckBox, controlLook } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";

type Schedule = Schemas["Schedule"];
type Unit = Schemas["TimeUnit"];

const units: [Unit, string][] = [
  ["minutes", "minutes"],
  ["hours", "hours"],
  ["days", "days"],
  ["workingDays", "working days"],
  ["weeks", "weeks"],
  ["months", "months"],
];
const look = `${controlLook} w-auto max-w-full`;

interface Props {
  schedule: Schedule;
  isFirst: boolean;
  /** Whether it is how long something is waited for. */
  isWait: boolean;
  /** Whether it only decides how the run goes on, which disturbs nobody at any hour. */
  isFlow: boolean;
  dates: Schemas["Choice"][];
  onChange: (schedule: Schedule) => void;
}

/** When a step comes, as a sentence with pickers in it. */
export function SchedulePicker({ schedule, isFirst, isWait, isFlow, dates, onChange }: Props) {
  const { anchor, amount, unit, atOnce } = schedule;
  const from = anchor.kind === "projectDate" ? `date:${anchor.field}` : anchor.kind;
  const isBefore = amount < 0;
  const setFrom = (next: string) =>
    next.startsWith("date:")
      ? onChange({ ...schedule, anchor: { kind: "projectDate", field: next.slice(5) } })
      : onChange({
          ...schedule,
          amount: Math.abs(amount),
          anchor: { kind: next as "runStart" | "previousSettled" },
        });
  return (
    <div>
      <p className="flex flex-wrap items-center gap-2">
        <NumberBox
          aria-label="How many"
          className="w-20"
          whole
          value={Math.abs(amount)}
          onChange={(number) =>
            number !== null && onChange({ ...schedule, amount: (isBefore ? -1 : 1) * Math.abs(number) })
          }
        />
        <select
          aria-label="Of what"
          className={look}
          value={unit}
          onChange={(e) => onChange({ ...schedule, unit: e.target.value as Unit })}
        >
          {units.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
        {!isWait && (
          <>
            {anchor.kind === "projectDate" ? (
              <select
                aria-label="Before or after"
                className={look}
                value={isBefore ? "before" : "after"}
                onChange={(e) =>
                  onChange({ ...schedule, amount: (e.target.value === "before" ? -1 : 1) * Math.abs(amount) })
                }
              >
                <option value="before">before</option>
                <option value="after">after</option>
              </select>
            ) : (
              <span>after</span>
            )}
            <select aria-label="Counted from" className={look} value={from} onChange={(e) => setFrom(e.target.value)}>
              <option value="runStart">the start</option>
              {(!isFirst || from === "previousSettled") && (
                <option value="previousSettled">the previous step is settled</option>
              )}
              {dates.map((one) => (
                <option key={one.key} value={`date:${one.key}`}>
                  the day of “{one.name}”
                </option>
              ))}
            </select>
          </>
        )}
      </p>
      {!isFlow && (
        <CheckBox
          label="At any hour"
          help={atOnce ? "Even at night and on days off." : "Otherwise only during your sending hours."}
          checked={atOnce}
          onChange={(on) => onChange({ ...schedule, atOnce: on })}
        />
      )}
    </div>
  );
}
