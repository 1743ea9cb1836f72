import { DayInput } from "../../../kit/DayBox";
import type { Schemas } from "../../../api/problem";
import { controlLook } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { BandFields } from "../desk/BandFields";
import { useWorkbench } from "../workbenchContext";

type Answer = Schemas["Answer"];

const pickerLook = `${controlLook} w-auto`;

/** A value that is always the same: words, a number, an exact or a rough amount, a day, yes or no. */
export function FixedAnswer({ value, onChange }: { value: Answer; onChange: (value: Answer) => void }) {
  const { parts } = useWorkbench();
  const begin = (kind: string): Answer => {
    const number = value.kind === "number" ? value.value : value.kind === "money" ? value.amount : 0;
    switch (kind) {
      case "number":
        return { kind, value: number };
      case "money":
        return { kind, amount: number, currency: parts.currency };
      case "band":
        return {
          kind,
          label: "",
          band: { low: { value: number, open: false }, high: null, currency: parts.currency, instalments: null },
        };
      case "date":
        return { kind, date: new Date().toISOString().slice(0, 10) };
      case "yesNo":
        return { kind, yes: true };
      default:
        return { kind: "text", text: "" };
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <select
        aria-label="What sort of value"
        className={pickerLook}
        value={value.kind}
        onChange={(e) => onChange(begin(e.target.value))}
      >
        <option value="text">words</option>
        <option value="number">a number</option>
        <option value="money">an amount</option>
        <option value="band">a rough amount, in words</option>
        <option value="date">a day</option>
        <option value="yesNo">yes or no</option>
        {!["text", "number", "money", "band", "date", "yesNo"].includes(value.kind) && (
          <option value={value.kind}>something else</option>
        )}
      </select>
      {value.kind === "text" && (
        <input
          aria-label="The words"
          className={pickerLook}
          value={value.text}
          onChange={(e) => onChange({ ...value, text: e.target.value })}
        />
      )}
      {value.kind === "number" && (
        <NumberBox
          aria-label="The number"
          value={value.value}
          onChange={(number) => onChange({ ...value, value: number ?? 0 })}
        />
      )}
      {value.kind === "money" && (
        <>
          <NumberBox
            aria-label="The amount"
            value={value.amount}
            onChange={(amount) => onChange({ ...value, amount: amount ?? 0 })}
          />
          <span>{value.currency}</span>
        </>
      )}
      {value.kind === "band" && (
        <>
          <input
            aria-label="What people read"
            placeholder="What people read"
            className={pickerLook}
            value={value.label}
            onChange={(e) => onChange({ ...value, label: e.target.value })}
          />
          <BandFields
            band={value.band}
            currency={parts.currency}
            onChange={(band) => band && onChange({ ...value, band })}
          />
        </>
      )}
      {value.kind === "date" && (
        <DayInput aria-label="The day" value={value.date} onChange={(date) => date && onChange({ ...value, date })} />
      )}
      {value.kind === "yesNo" && (
        <select
          aria-label="Yes or no"
          className={pickerLook}
          value={value.yes ? "yes" : "no"}
          onChange={(e) => onChange({ ...value, yes: e.target.value === "yes" })}
        >
          <option value="yes">yes</option>
          <option value="no">no</option>
        </select>
      )}
    </div>
  );
}
