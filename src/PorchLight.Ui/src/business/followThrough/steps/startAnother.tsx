import { SelectBox } from "../../../kit/fields";
import { Offered } from "../Offered";
import { noId, type FieldsProps, type StepKind } from "./stepKind";

const Fields = ({ value, choices, onChange }: FieldsProps<"startAnother">) => (
  <SelectBox
    label="What starts"
    help="This one then ends, unless both may run side by side."
    value={value.followThrough}
    onChange={(e) => onChange({ ...value, followThrough: e.target.value })}
  >
    <Offered choices={choices.others} chosen={value.followThrough} />
  </SelectBox>
);

export const startAnother: StepKind<"startAnother"> = {
  label: "Start another follow-through",
  begin: (choices) => ({ kind: "startAnother", followThrough: choices.others[0]?.key ?? noId }),
  Fields,
};
