import { TextBox } from "../../../kit/fields";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, onChange }: FieldsProps<"unwritten">) => (
  <TextBox
    label="What is still to be written"
    help="Describe what the client will see. The follow-through cannot be put into force until this step is written."
    value={value.what}
    onChange={(e) => onChange({ ...value, what: e.target.value })}
  />
);

export const unwritten: StepKind<"unwritten"> = {
  label: "Note what is still to be written",
  begin: () => ({ kind: "unwritten", what: "" }),
  Fields,
};
