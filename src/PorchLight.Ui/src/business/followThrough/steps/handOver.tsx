import { CheckBox, SelectBox } from "../../../kit/fields";
import { Offered } from "../Offered";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, choices, onChange }: FieldsProps<"handOver">) => (
  <>
    <SelectBox label="Who takes it over" value={value.to} onChange={(e) => onChange({ ...value, to: e.target.value })}>
      <Offered choices={choices.people} chosen={value.to} />
    </SelectBox>
    <CheckBox
      label="The person who looked after it keeps watching and gets a mail about anything new"
      checked={value.keepWatching ?? false}
      onChange={(keepWatching) => onChange({ ...value, keepWatching })}
    />
  </>
);

export const handOver: StepKind<"handOver"> = {
  label: "Hand over to a colleague",
  begin: (choices) => ({ kind: "handOver", to: choices.people[0]?.key ?? "", keepWatching: false }),
  Fields,
};
