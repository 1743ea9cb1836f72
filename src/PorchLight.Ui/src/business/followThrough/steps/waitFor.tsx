import { OccasionPicker } from "../OccasionPicker";
import { Target } from "../Offered";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, choices, later, onChange }: FieldsProps<"waitFor">) => (
  <>
    <OccasionPicker
      label="Until"
      occasion={value.on}
      stages={choices.stages}
      onChange={(on) => onChange({ ...value, on })}
    />
    <Target
      label="If time runs out, continue at"
      later={later}
      value={value.otherwise}
      onChange={(otherwise) => onChange({ ...value, otherwise })}
    />
  </>
);

export const waitFor: StepKind<"waitFor"> = {
  label: "Wait until something happens",
  flow: "waits",
  begin: () => ({ kind: "waitFor", on: { kind: "replied" }, otherwise: null }),
  Fields,
};
