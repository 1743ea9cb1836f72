import { X } from "lucide-react";
import type { Schemas } from "../../api/problem";
import { DayInput } from "../../kit/DayBox";
import { controlLook } from "../../kit/fields";

type Test = Schemas["FieldTest"];
type Filter = Schemas["FieldFilter"];

const testWords: Record<Test, string> = {
  contains: "contains",
  is: "is",
  atLeast: "is at least",
  atMost: "is at most",
  isFilled: "is filled in",
  isEmpty: "is empty",
};
const dayWords: Partial<Record<Test, string>> = { atLeast: "is not before", atMost: "is not after" };

interface Props {
  fields: Schemas["FieldToFilter"][];
  filters: Filter[];
  onChange: (filters: Filter[]) => void;
}

/** What must hold of fields, a line each. */
export function FieldFilters({ fields, filters, onChange }: Props) {
  return filters.map((filter, index) => (
    <FieldFilter
      key={index}
      filter={filter}
      found={fields.find((one) => one.field.key === filter.field)}
      onChange={(part) => onChange(filters.map((one, at) => (at === index ? { ...one, ...part } : one)))}
      onRemove={() => onChange(filters.filter((_, at) => at !== index))}
    />
  ));
}

interface LineProps {
  filter: Filter;
  /** The field it is about; undefined when that is gone. */
  found: Schemas["FieldToFilter"] | undefined;
  onChange: (part: Partial<Filter>) => void;
  onRemove: () => void;
}

function FieldFilter({ filter, found, onChange, onRemove }: LineProps) {
  const name = found?.field.label ?? "a deleted field";
  const kind = found?.field.kind;
  const options = found?.field.options ?? [];
  const optionsId = `options-of-${filter.field}`;
  const compared = { "aria-label": `What ${name} is compared with`, className: controlLook };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span>{name}</span>
      <select
        aria-label={`How ${name} is compared`}
        className={controlLook}
        value={filter.test}
        onChange={(e) => onChange({ test: e.target.value as Test })}
      >
        {(found?.tests ?? [filter.test]).map((test) => (
          <option key={test} value={test}>
            {(kind === "date" && dayWords[test]) || testWords[test]}
          </option>
        ))}
      </select>
      {filter.test === "isFilled" || filter.test === "isEmpty" ? null : kind === "yesNo" ? (
        <select {...compared} value={filter.value} onChange={(e) => onChange({ value: e.target.value })}>
          <option value="">choose …</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </select>
      ) : kind === "date" ? (
        <DayInput
          aria-label={compared["aria-label"]}
          value={filter.value || null}
          onChange={(day) => onChange({ value: day ?? "" })}
        />
      ) : (
        <input
          {...compared}
          list={options.length > 0 ? optionsId : undefined}
          value={filter.value}
          onChange={(e) => onChange({ value: e.target.value })}
        />
      )}
      {options.length > 0 && (
        <datalist id={optionsId}>
          {options.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      )}
      <button
        type="button"
        aria-label={`Remove the filter on ${name}`}
        className="rounded-soft p-1.5 text-slate hover:text-brick"
        onClick={onRemove}
      >
        <X size={18} aria-hidden />
      </button>
    </div>
  );
}
