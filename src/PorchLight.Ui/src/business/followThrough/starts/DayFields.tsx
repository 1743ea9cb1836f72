import type { Schemas } from "../../../api/problem";
import { controlLook } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { Offered } from "../Offered";

interface Dated {
  field: string;
  days: number;
}

interface Props<S extends Dated> {
  start: S;
  dates: Schemas["Choice"][];
  /** For whom it starts. */
  help: string;
  onChange: (start: S) => void;
}

/** A day counted from one that stands in a field. */
export function DayFields<S extends Dated>({ start, dates, help, onChange }: Props<S>) {
  const { days } = start;
  const way = days === 0 ? "on" : days < 0 ? "before" : "after";
  const count = Math.abs(days);
  const set = (next: string, amount: number) =>
    onChange({ ...start, days: next === "on" ? 0 : (next === "before" ? -1 : 1) * Math.max(amount, 1) });
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">On which day</legend>
      <p className="flex flex-wrap items-center gap-2">
        {way !== "on" && (
          <>
            <NumberBox
              aria-label="How many days"
              className="w-20"
              whole
              value={count}
              onChange={(amount) => amount !== null && set(way, Math.abs(amount))}
            />
            <span>days</span>
          </>
        )}
        <select
          aria-label="Before or after"
          className={`${controlLook} w-auto max-w-full`}
          value={way}
          onChange={(e) => set(e.target.value, count)}
        >
          <option value="before">before</option>
          <option value="on">on</option>
          <option value="after">after</option>
        </select>
        <select
          aria-label="Counted from"
          className={`${controlLook} w-auto max-w-full`}
          value={start.field}
          onChange={(e) => onChange({ ...start, field: e.target.value })}
        >
          <Offered choices={dates} chosen={start.field} />
        </select>
      </p>
      <p className="mt-1 text-slate">{help}</p>
    </fieldset>
  );
}
