import type { Schemas } from "../../api/problem";
import { CheckBox, SelectBox } from "../../kit/fields";

type Occasion = Schemas["Occasion"];

interface Kind<K extends Occasion["kind"]> {
  /** What it is called behind "until" or "if". */
  label: string;
  /** One with nothing said yet. */
  begin: () => Extract<Occasion, { kind: K }>;
}

/** All occasions, in the order in which they are offered. */
const kinds: { [K in Occasion["kind"]]: Kind<K> } = {
  replied: { label: "they reply", begin: () => ({ kind: "replied" }) },
  booked: { label: "they book a meeting", begin: () => ({ kind: "booked" }) },
  meetingMoved: { label: "the meeting is moved", begin: () => ({ kind: "meetingMoved" }) },
  meetingCancelled: { label: "the meeting is cancelled", begin: () => ({ kind: "meetingCancelled" }) },
  meetingMissed: { label: "they do not come to the meeting", begin: () => ({ kind: "meetingMissed" }) },
  stage: { label: "the project reaches a stage", begin: () => ({ kind: "stage", stages: [] }) },
};
const names = Object.keys(kinds) as Occasion["kind"][];

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
        onChange={(e) => onChange(kinds[e.target.value as Occasion["kind"]].begin())}
      >
        {names.map((kind) => (
          <option key={kind} value={kind}>
            {kinds[kind].label}
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
