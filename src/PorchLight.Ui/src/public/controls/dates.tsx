import { useState } from "react";
import { answerOf, box, Part, type ControlProps, type Described } from "./control";
import { Choice } from "./choices";

export function DayLine({ id, control, answer, onChange, described }: ControlProps<"date">) {
  return (
    <DayBox
      id={id}
      first={control.first}
      last={control.last}
      value={answerOf(answer, "date")?.date ?? ""}
      onChange={(date) => onChange(date === "" ? undefined : { kind: "date", date })}
      described={described}
    />
  );
}

/** Two days; or, where the question says so, some time in a month. */
export function DayRange({ id, control, answer, onChange, described }: ControlProps<"dateRange">) {
  const range = answerOf(answer, "dateRange");
  const [roughly, setRoughly] = useState(range?.roughly ?? false);
  // One of the two days alone is no answer yet, but it stays where it was typed.
  const [days, setDays] = useState({ from: range?.from ?? "", to: range?.to ?? "" });
  const set = (next: typeof days) => {
    setDays(next);
    onChange(next.from && next.to ? { kind: "dateRange", ...next, roughly: false } : undefined);
  };
  return (
    <div className="grid gap-3">
      {control.months.length > 0 && (
        <div className="grid gap-2 sm:grid-cols-2">
          {[false, true].map((rough) => (
            <Choice
              key={String(rough)}
              id={`${id}-${rough ? "month" : "days"}`}
              type="radio"
              name={`${id}-how`}
              label={rough ? "Some time in a month" : "On certain days"}
              checked={roughly === rough}
              invalid={undefined}
              onChange={() => {
                setRoughly(rough);
                onChange(undefined);
                setDays({ from: "", to: "" });
              }}
            />
          ))}
        </div>
      )}
      {roughly ? (
        <Part label="Month">
          <select
            className={`${box} max-w-60`}
            value={control.months.find((month) => month.first.slice(0, 7) === range?.from.slice(0, 7))?.first ?? ""}
            onChange={({ target: { value } }) =>
              onChange(value ? { kind: "dateRange", from: value, to: value, roughly: true } : undefined)
            }
            {...described}
          >
            <option value="">Please choose</option>
            {control.months.map((month) => (
              <option key={month.first} value={month.first}>
                {month.words}
              </option>
            ))}
          </select>
        </Part>
      ) : (
        <div className="grid gap-3 sm:grid-cols-2">
          <Part label="From">
            <DayBox
              first={control.first}
              last={control.last}
              value={days.from}
              onChange={(from) => set({ ...days, from })}
              described={described}
            />
          </Part>
          <Part label="To">
            <DayBox
              first={days.from || control.first}
              last={control.last}
              value={days.to}
              onChange={(to) => set({ ...days, to })}
              described={described}
            />
          </Part>
        </div>
      )}
    </div>
  );
}

function DayBox(props: {
  id?: string;
  first: string | null;
  last: string | null;
  value: string;
  onChange: (value: string) => void;
  described: Described;
}) {
  return (
    <input
      id={props.id}
      type="date"
      min={props.first ?? undefined}
      max={props.last ?? undefined}
      className={`${box} max-w-60`}
      value={props.value}
      onChange={({ target }) => props.onChange(target.value)}
      {...props.described}
    />
  );
}
