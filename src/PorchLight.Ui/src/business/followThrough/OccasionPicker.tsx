import type { Schemas } from "../../api/problem";
import { CheckBox, SelectBox } from "../../kit/fields";

type Occasion = Schemas["Occasion"];

const kinds: [Occasion["kind"], string][] = [
  ["replied", "they reply"],
  ["booked", "they book a meeting"],
  ["stage", "the project reaches a stage"],
];

interface Props {
  label: string;
  occasion: Occasion;
  stages: Schemas["Stage"][];
  onChange: (occasion: Occasion) => void;
}

/** Something that happens, as a part of a sentence. */
export function OccasionPicker({ label, occasion, stages, onChange }: Props) {
  return (
    <div>
      <SelectBox
        label={label}
        value={occasion.kind}
        onChange={(e) => {
          const kind = e.target.value as Occasion["kind"];
          onChange(kind === "stage" ? { kind, stages: [] } : { kind });
        }}
      >
        {kinds.map(([kind, words]) => (
          <option key={kind} value={kind}>
            {words}
          </option>
        ))}
      </SelectBox>
      {occasion.kind === "stage" && (
        <StagesPicker
          label="Which"
          none="Any stage other than its current one."
          stages={stages}
          chosen={occasion.stages}
          onChange={(chosen) => onChange({ kind: "stage", stages: chosen })}
        />
      )}
    </div>
  );
}

interface StagesProps {
  label: string;
  /** What it means that none is chosen. */
  none: string;
  stages: Schemas["Stage"][];
  chosen: string[];
  onChange: (chosen: string[]) => void;
}

export function StagesPicker({ label, none, stages, chosen, onChange }: StagesProps) {
  return (
    <fieldset className="mt-2">
      <legend className="sr-only">{label}</legend>
      {chosen.length === 0 && <p className="text-slate">{none}</p>}
      <div className="grid grid-cols-2 gap-x-3">
        {stages.map((one) => (
          <CheckBox
            key={one.key}
            label={one.name}
            checked={chosen.includes(one.key)}
            onChange={(on) => onChange(on ? [...chosen, one.key] : chosen.filter((key) => key !== one.key))}
          />
        ))}
      </div>
    </fieldset>
  );
}
