import { SelectBox } from "../../kit/fields";
import type { Step } from "./useFollowThrough";

/** What can be chosen, and what was chosen before it went away. */
export function Offered(props: { choices: { key: string; name: string }[]; chosen: string | null | undefined }) {
  const { choices, chosen } = props;
  return (
    <>
      {chosen && !choices.some((one) => one.key === chosen) && <option value={chosen}>choose …</option>}
      {choices.map((one) => (
        <option key={one.key} value={one.key}>
          {one.name || "a step without a name"}
        </option>
      ))}
    </>
  );
}

interface TargetProps {
  label: string;
  later: Step[];
  value: string | null | undefined;
  onChange: (key: string | null) => void;
}

/** The later step a run goes on at. */
export function Target({ label, later, value, onChange }: TargetProps) {
  return (
    <SelectBox label={label} value={value ?? ""} onChange={(e) => onChange(e.target.value || null)}>
      <option value="">the next step</option>
      <Offered choices={later} chosen={value} />
    </SelectBox>
  );
}
