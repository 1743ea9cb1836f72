import { DayInput } from "../../kit/DayBox";
import { controlLook } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import type { Condition, PossibleValue } from "./subjects";

const pickerLook = `${controlLook} w-auto max-w-full`;

interface Props {
  value: Condition;
  /** The values there are to choose from; empty where it is typed. */
  values: PossibleValue[];
  onChange: (value: Condition) => void;
}

/** What something is compared with. */
export function ComparedValue({ value, values, onChange }: Props) {
  switch (value.kind) {
    case "is":
    case "isNot":
    case "includes":
      return values.length > 0 ? (
        <select
          aria-label="What it is compared with"
          className={`${pickerLook} max-w-64`}
          value={value.value}
          onChange={(e) => onChange({ ...value, value: e.target.value })}
        >
          <Gone values={values} keys={[value.value]} />
          {values.map((one) => (
            <option key={one.key} value={one.key}>
              {one.label}
            </option>
          ))}
        </select>
      ) : (
        <input
          aria-label="What it is compared with"
          className={pickerLook}
          value={value.value}
          onChange={(e) => onChange({ ...value, value: e.target.value })}
        />
      );
    case "isOneOf":
    case "includesNoneOf":
      return values.length > 0 ? (
        <Several values={values} chosen={value.values} onChange={(chosen) => onChange({ ...value, values: chosen })} />
      ) : (
        <input
          aria-label="What it is compared with, with commas between"
          className={pickerLook}
          value={value.values.join(", ")}
          onChange={(e) => onChange({ ...value, values: e.target.value.split(/,\s*/) })}
        />
      );
    case "numberIs":
      return (
        <Amount
          label="The number it is compared with"
          value={value.value}
          currency={value.currency}
          onChange={(number) => onChange({ ...value, value: number })}
        />
      );
    case "numberBetween":
      return (
        <>
          <Amount label="The lowest" value={value.low} onChange={(low) => onChange({ ...value, low })} />
          <span>and</span>
          <Amount
            label="The highest"
            value={value.high}
            currency={value.currency}
            onChange={(high) => onChange({ ...value, high })}
          />
        </>
      );
    case "before":
    case "after":
      return <Day label="The day" value={value.date} onChange={(date) => onChange({ ...value, date })} />;
    case "dateBetween":
      return (
        <>
          <Day label="The first day" value={value.from} onChange={(from) => onChange({ ...value, from })} />
          <span>and</span>
          <Day label="The last day" value={value.to} onChange={(to) => onChange({ ...value, to })} />
        </>
      );
    case "withinNextDays":
      return (
        <>
          <NumberBox
            aria-label="How many days"
            className="w-20"
            whole
            value={value.days}
            onChange={(days) => days !== null && onChange({ ...value, days })}
          />
          <span>days</span>
        </>
      );
    case "fitIs":
      return (
        <select
          aria-label="What it is compared with"
          className={pickerLook}
          value={value.fit}
          onChange={(e) => onChange({ ...value, fit: e.target.value as typeof value.fit })}
        >
          {values.map((one) => (
            <option key={one.key} value={one.key}>
              {one.label}
            </option>
          ))}
        </select>
      );
    default:
      return null;
  }
}

/** A value that is stored, but is not offered any more. */
function Gone({ values, keys }: { values: PossibleValue[]; keys: string[] }) {
  return keys
    .filter((key) => !values.some((one) => one.key === key))
    .map((key) => (
      <option key={key} value={key}>
        {key || "choose …"}
      </option>
    ));
}

function Several(props: { values: PossibleValue[]; chosen: string[]; onChange: (chosen: string[]) => void }) {
  const { values, chosen, onChange } = props;
  return (
    <span role="group" aria-label="What it is compared with" className="flex flex-wrap gap-1">
      {values.map((one) => {
        const on = chosen.includes(one.key);
        return (
          <button
            key={one.key}
            type="button"
            aria-pressed={on}
            className={`rounded-soft border px-2 py-1 ${on ? "border-dusk bg-dusk text-card" : "border-edge bg-card"}`}
            onClick={() => onChange(on ? chosen.filter((key) => key !== one.key) : [...chosen, one.key])}
          >
            {one.label}
          </button>
        );
      })}
    </span>
  );
}

function Amount(props: { label: string; value: number; currency?: string | null; onChange: (value: number) => void }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <NumberBox aria-label={props.label} value={props.value} onChange={(number) => props.onChange(number ?? 0)} />
      {props.currency && <span>{props.currency}</span>}
    </span>
  );
}

function Day(props: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <DayInput aria-label={props.label} value={props.value || null} onChange={(day) => day && props.onChange(day)} />
  );
}
